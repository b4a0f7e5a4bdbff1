import { refusalsTexts } from "../../texts/en/refusals";
import { saidOf } from "../../texts/said";
import type { RefusalWords } from "./refusal-words";

const said = saidOf(refusalsTexts);

/** Why categories stay as they are. */
export type CategoryRefusal =
  | { readonly kind: "not-in-all-trays"; readonly name: string }
  | { readonly kind: "name-there"; readonly name: string }
  | { readonly kind: "changed-since" };

export const CATEGORIES_REFUSALS: RefusalWords<CategoryRefusal> = {
  "not-in-all-trays": ({ name }) => said("refusals.isOfThisTrayAlone", { name }),
  "name-there": ({ name }) => said("refusals.standsUnderItAndWould", { name }),
  "changed-since": () => said("refusals.itWasChangedAgainSince"),
};
