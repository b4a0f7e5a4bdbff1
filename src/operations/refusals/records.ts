import type { AskedFields } from "../../core/records/filing-field";
import { takenInWords } from "../../core/records/register-table";
import { refusalsTexts } from "../../texts/en/refusals";
import { type Said, saidOf } from "../../texts/said";
import type { RefusalWords } from "./refusal-words";

const said = saidOf(refusalsTexts);

/** Why a record, or what is filed on it, stays as it is. */
export type RecordRefusal =
  /** Nothing more is filed on it. */
  | { readonly kind: "record-closed"; readonly code: string }
  /** It wants to know more of what is filed on it. */
  | { readonly kind: "fields-asked"; readonly asked: AskedFields<Said> }
  | { readonly kind: "record-changed" }
  /** What is to become of what is filed there would be known to fewer, or to others. */
  | { readonly kind: "other-access"; readonly code: string }
  | { readonly kind: "code-there"; readonly code: string }
  | { readonly kind: "shut-out-yourself" }
  /** Something else is kept by it. */
  | { readonly kind: "policy-borne"; readonly name: string; readonly count: number }
  | { readonly kind: "no-reason" }
  | { readonly kind: "too-arranged" }
  | { readonly kind: "not-due"; readonly code: string }
  /** What would go is not what was shown before. */
  | { readonly kind: "not-as-shown" }
  | { readonly kind: "open-on-record"; readonly code: string; readonly count: number }
  | { readonly kind: "records-under"; readonly code: string };

export const RECORDS_REFUSALS: RefusalWords<RecordRefusal> = {
  "record-closed": ({ code }) => said("refusals.isClosedReopenItFirst", { code }),
  "fields-asked": ({ asked }) => said("refusals.asksForMoreOfWhat", { code: asked.code }),
  "record-changed": () => said("refusals.somebodyChangedThisRecordMeanwhile"),
  "other-access": ({ code }) => said("refusals.mayBeKnownToOthers", { code }),
  "code-there": ({ code }) => takenInWords(code),
  "shut-out-yourself": () => said("refusals.youWouldNotKnowOf"),
  "policy-borne": ({ count, name }) => said("refusals.isGivenToThingsGive", { name, count }),
  "no-reason": () => said("refusals.sayWhyWhoeverComesTo"),
  "too-arranged": () => said("refusals.thatIsMoreThanOne"),
  "not-due": ({ code }) => said("refusals.theTermOfIsNot", { code }),
  "not-as-shown": () => said("refusals.whatWouldGoIsNot"),
  "open-on-record": ({ code, count }) => said("refusals.conversationsOnAreStillOpen", { count, code }),
  "records-under": ({ code }) => said("refusals.otherRecordsStandUnderThey", { code }),
};
