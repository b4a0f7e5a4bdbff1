import { sizeInWords } from "../../core/kernel/size-in-words";
import { refusalsTexts } from "../../texts/en/refusals";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import type { RefusalWords } from "./refusal-words";

const said = saidOf(refusalsTexts);

/** Why a letter was not sent or kept. */
export type WritingRefusal =
  /** A colleague writes an answer at this moment. */
  | { readonly kind: "also-writing"; readonly who: Sayable }
  /** A colleague answered since the writer began. */
  | { readonly kind: "answered-meanwhile"; readonly who: Sayable }
  | { readonly kind: "draft-changed" }
  /** A file that was attached is kept no more. */
  | { readonly kind: "attachment-gone" }
  | { readonly kind: "too-large"; readonly mostBytes: number }
  | { readonly kind: "already-sent" }
  | { readonly kind: "no-recipient" }
  | { readonly kind: "sender-not-verified" }
  /** Blanks are left in it that nobody filled. */
  | { readonly kind: "unfilled"; readonly blanks: readonly string[] }
  /** Somebody changed the template since it was read. */
  | { readonly kind: "template-changed" }
  /** It cannot go at the moment that was chosen. */
  | { readonly kind: "not-then"; readonly why: Said }
  /** What was to go later has gone, or was called off. */
  /** Its reply would be due before it has gone. */
  | { readonly kind: "due-before-it-goes" }
  | { readonly kind: "letter-is-over" }
  | { readonly kind: "not-your-letter" };

export const WRITING_REFUSALS: RefusalWords<WritingRefusal> = {
  "also-writing": ({ who }) => said("refusals.isWritingAnAnswerAt", { who }),
  "answered-meanwhile": ({ who }) => said("refusals.answeredWhileYouWereWriting", { who }),
  "draft-changed": () => said("refusals.theDraftWasChangedOr"),
  "attachment-gone": () => said("refusals.aFileThatWasAttached"),
  "too-large": ({ mostBytes }) => said("refusals.theFilesComeToMore", { mostBytes: sizeInWords(mostBytes) }),
  "already-sent": () => said("refusals.thatMessageIsAlreadyOut"),
  "no-recipient": () => said("refusals.somebodyHasToGetIt"),
  "sender-not-verified": () => said("refusals.theSenderIsNotVerified"),
  unfilled: ({ blanks: [first = "", ...more] }) => said("refusals.blanksAreLeft", { first, more: more.length }),
  "not-then": ({ why }) => why,
  "due-before-it-goes": () => said("refusals.theReplyIsDueBefore"),
  "letter-is-over": () => said("refusals.theLetterIsOver"),
  "not-your-letter": () => said("refusals.onlyWhoWroteTheLetter"),
  "template-changed": () => said("refusals.theTemplateWasChanged"),
};
