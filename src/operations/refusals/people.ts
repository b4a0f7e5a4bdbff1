import type { RefusalWords } from "./refusal-words";

/** Why somebody may not, or not like this, change a tray and its members. */
export type PeopleRefusal =
  | { readonly kind: "last-lead" }
  | { readonly kind: "not-yourself" }
  | { readonly kind: "owns-open"; readonly name: string; readonly count: number }
  | { readonly kind: "leads-only" }
  | { readonly kind: "leads-of-all-only" }
  /** Only the demo's time can be let pass. */
  | { readonly kind: "real-clock" }
  | { readonly kind: "never-open" };

export const PEOPLE_REFUSALS: RefusalWords<PeopleRefusal> = {
  "last-lead": () => "A tray needs a lead. Name another one first.",
  "not-yourself": () => "You cannot remove your own access. Ask another lead of the tray.",
  "owns-open": ({ count, name }) =>
    `${name} owns ${count} open ${count === 1 ? "conversation" : "conversations"}; hand them over first.`,
  "leads-only": () => "That is for those who lead the tray.",
  "leads-of-all-only": () => "What is common to all trays is changed by those who lead all of them.",
  "real-clock": () => "Only the demo’s time can be let pass.",
  "never-open": () => "This tray would never be open; set its hours first.",
};
