import type { RefusalWords } from "./refusal-words";

/** Why categories stay as they are. */
export type CategoryRefusal =
  | { readonly kind: "not-in-all-trays"; readonly name: string }
  | { readonly kind: "name-there"; readonly name: string }
  | { readonly kind: "changed-since" };

export const CATEGORIES_REFUSALS: RefusalWords<CategoryRefusal> = {
  "not-in-all-trays": ({ name }) => `“${name}” is of this tray alone and cannot stand for one of all trays.`,
  "name-there": ({ name }) => `“${name}” stands under it and would meet another of that name; rename one first.`,
  "changed-since": () => "It was changed again since; take that back first.",
};
