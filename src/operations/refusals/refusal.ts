import type { Said } from "../../texts/said";
import { CATEGORIES_REFUSALS, type CategoryRefusal } from "./categories";
import { DECIDING_REFUSALS, type DecidingRefusal } from "./deciding";
import { PEOPLE_REFUSALS, type PeopleRefusal } from "./people";
import { RECORDS_REFUSALS, type RecordRefusal } from "./records";
import type { RefusalWords } from "./refusal-words";
import { WRITING_REFUSALS, type WritingRefusal } from "./writing";

/** Why something was not done. Expected; a screen says it in words. */
export type Refusal = DecidingRefusal | WritingRefusal | PeopleRefusal | CategoryRefusal | RecordRefusal;

const WORDS: RefusalWords<Refusal> = {
  ...DECIDING_REFUSALS,
  ...WRITING_REFUSALS,
  ...PEOPLE_REFUSALS,
  ...CATEGORIES_REFUSALS,
  ...RECORDS_REFUSALS,
};

/** A refusal as the person who tried reads it: what is the matter and how things are now. */
export function refusalInWords<Kind extends Refusal["kind"]>(refusal: Extract<Refusal, { readonly kind: Kind }>): Said {
  // The table's type ties each entry to its refusal; an index by a union loses that tie.
  const words = WORDS[refusal.kind as Kind] as (refusal: Extract<Refusal, { readonly kind: Kind }>) => Said;
  return words(refusal);
}
