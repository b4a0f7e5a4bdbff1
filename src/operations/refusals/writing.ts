import { sizeInWords } from "../../core/kernel/size-in-words";
import type { RefusalWords } from "./refusal-words";

/** Why a letter was not sent or kept. */
export type WritingRefusal =
  /** A colleague writes an answer at this moment. */
  | { readonly kind: "also-writing"; readonly who: string }
  /** A colleague answered since the writer began. */
  | { readonly kind: "answered-meanwhile"; readonly who: string }
  | { readonly kind: "draft-changed" }
  /** A file that was attached is kept no more. */
  | { readonly kind: "attachment-gone" }
  | { readonly kind: "too-large"; readonly mostBytes: number }
  | { readonly kind: "already-sent" }
  | { readonly kind: "no-recipient" }
  | { readonly kind: "sender-not-verified" };

export const WRITING_REFUSALS: RefusalWords<WritingRefusal> = {
  "also-writing": ({ who }) => `${who} is writing an answer at this moment. Ask first, or send yours all the same.`,
  "answered-meanwhile": ({ who }) =>
    `${who} answered while you were writing. Read it first, or send yours all the same.`,
  "draft-changed": () => "The draft was changed or sent meanwhile. Your text is kept here.",
  "attachment-gone": () => "A file that was attached is not kept any more: take it off and attach it again.",
  "too-large": ({ mostBytes }) =>
    `The files come to more than ${sizeInWords(mostBytes)}, which most mail servers refuse: send some of them apart.`,
  "already-sent": () => "That message is already out.",
  "no-recipient": () => "Somebody has to get it: fill in To.",
  "sender-not-verified": () =>
    "The sender is not verified: this message could be from anybody. Show its pictures once instead.",
};
