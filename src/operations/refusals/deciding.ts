import { refusalsTexts } from "../../texts/en/refusals";
import { type Sayable, saidOf } from "../../texts/said";
import type { RefusalWords } from "./refusal-words";

const said = saidOf(refusalsTexts);

/** Why nothing was decided about conversations. */
export type DecidingRefusal =
  | { readonly kind: "no-such-conversation" }
  | {
      readonly kind: "no-such";
      readonly what:
        | "category"
        | "record"
        | "member"
        | "expectation"
        | "message"
        | "tray"
        | "import"
        | "place"
        | "sender"
        | "note"
        | "group"
        | "draft"
        | "letter"
        | "invitation"
        | "timeOff"
        | "rule"
        | "round"
        | "automatic-answer"
        | "template"
        | "contact"
        | "type"
        | "policy"
        | "document"
        | "zip";
    }
  | { readonly kind: "readers-only-read" }
  /** She may look into the tray, and nothing else. */
  | { readonly kind: "only-reads"; readonly name: string }
  | { readonly kind: "away"; readonly name: string; readonly back: Sayable; readonly cover: string | null }
  | { readonly kind: "nobody-there"; readonly name: string }
  | { readonly kind: "no-access"; readonly names: readonly string[] }
  | { readonly kind: "not-your-note" }
  | { readonly kind: "note-stands" }
  | { readonly kind: "category-retired"; readonly name: string }
  /** Somebody decided the same thing since the page was loaded. */
  | { readonly kind: "overtaken"; readonly who: Sayable; readonly did: Sayable }
  /** A message came since the page was loaded. */
  | { readonly kind: "new-message"; readonly who: string }
  | { readonly kind: "same-conversation" }
  | { readonly kind: "nothing-would-stay" }
  | { readonly kind: "nothing-to-undo" }
  | { readonly kind: "nothing-to-redo" }
  | { readonly kind: "nothing-chosen" }
  | { readonly kind: "too-many"; readonly most: number }
  | { readonly kind: "ended-already" }
  | { readonly kind: "date-is-past" }
  /** The tray settles only what is filed. */
  | { readonly kind: "file-first" }
  | { readonly kind: "nothing-awaited" };

export const DECIDING_REFUSALS: RefusalWords<DecidingRefusal> = {
  "no-such-conversation": () => said("refusals.thisConversationIsNotIn"),
  "no-such": ({ what }) => said("refusals.thereIsNoSuchAny", { what }),
  "readers-only-read": () => said("refusals.youMayOnlyReadThis"),
  "only-reads": ({ name }) => said("refusals.mayOnlyReadThisTray", { name }),
  away: ({ back, cover, name }) =>
    cover === null
      ? said("refusals.isAwayAndNobodyCovers", { name, back })
      : said("refusals.isAwayAndSomebodyCovers", { name, back, cover }),
  "nobody-there": ({ name }) => said("refusals.nobodyOfIsThereNow", { name }),
  "no-access": ({ names }) => said("refusals.cannotLookIntoThisTray", { names: { all: names, by: "and" } }),
  "not-your-note": () => said("refusals.thatIsSomebodyElsesNote"),
  "note-stands": () => said("refusals.aNoteCanBeEdited"),
  "category-retired": ({ name }) => said("refusals.isRetiredWhatHasIt", { name }),
  overtaken: ({ did, who }) => said("refusals.notDoneMeanwhileThisIs", { who, did }),
  "new-message": ({ who }) => said("refusals.notDoneWroteMeanwhileRead", { who }),
  "same-conversation": () => said("refusals.thatIsThisConversationItself"),
  "nothing-would-stay": () => said("refusals.everythingHangsOnThatMessage"),
  "nothing-to-undo": () => said("refusals.thereIsNothingLeftTo"),
  "nothing-to-redo": () => said("refusals.thereIsNothingToDo"),
  "nothing-chosen": () => said("refusals.nothingIsSelectedAnyMore"),
  "too-many": ({ most }) => said("refusals.thatIsMoreThanAt", { most }),
  "ended-already": () => said("refusals.itHasEndedAlready"),
  "date-is-past": () => said("refusals.thatDayIsOverChoose"),
  "file-first": () => said("refusals.thisTraySettlesOnlyWhat"),
  "nothing-awaited": () => said("refusals.nothingIsAwaitedThereAny"),
};
