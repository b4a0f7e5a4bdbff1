import type { AskedFields } from "../../core/records/filing-field";
import { takenInWords } from "../../core/records/register-table";
import type { RefusalWords } from "./refusal-words";

/** Why a record, or what is filed on it, stays as it is. */
export type RecordRefusal =
  /** Nothing more is filed on it. */
  | { readonly kind: "record-closed"; readonly code: string }
  /** It wants to know more of what is filed on it. */
  | { readonly kind: "fields-asked"; readonly asked: AskedFields }
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
  "record-closed": ({ code }) => `${code} is closed; reopen it first, or choose another record.`,
  "fields-asked": ({ asked }) => `${asked.code} asks for more of what is filed on it.`,
  "record-changed": () =>
    "Somebody changed this record meanwhile. This is how it stands now; what you typed is still here.",
  "other-access": ({ code }) => `${code} may be known to others than this one; give both the same access first.`,
  "code-there": ({ code }) => takenInWords(code),
  "shut-out-yourself": () => "You would not know of it any more; leave yourself among those who do.",
  "policy-borne": ({ count, name }) =>
    `${name} is given to ${count === 1 ? "something" : `${count} things`}; give them another policy first.`,
  "no-reason": () => "Say why; whoever comes to it later has to know.",
  "too-arranged": () => "That is more than one tree can have: at most 500 records and folders, five folders deep.",
  "not-due": ({ code }) => `The term of ${code} is not over, or something holds it.`,
  "not-as-shown": () => "What would go is not what was shown before. Look at it as it is now.",
  "open-on-record": ({ code, count }) =>
    `${count === 1 ? "A conversation" : `${count} conversations`} on ${code} ${count === 1 ? "is" : "are"} still open; settle them first.`,
  "records-under": ({ code }) => `Other records stand under ${code}; they go first.`,
};
