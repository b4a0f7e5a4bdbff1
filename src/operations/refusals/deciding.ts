import type { RefusalWords } from "./refusal-words";

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
        | "invitation"
        | "time off"
        | "rule"
        | "contact"
        | "type"
        | "policy"
        | "document"
        | "parcel";
    }
  | { readonly kind: "readers-only-read" }
  /** She may look into the tray, and nothing else. */
  | { readonly kind: "only-reads"; readonly name: string }
  | { readonly kind: "away"; readonly name: string; readonly back: string; readonly cover: string | null }
  | { readonly kind: "nobody-there"; readonly name: string }
  | { readonly kind: "no-access"; readonly names: readonly string[] }
  | { readonly kind: "not-your-note" }
  | { readonly kind: "note-stands" }
  | { readonly kind: "category-retired"; readonly name: string }
  /** Somebody decided the same thing since the page was loaded. */
  | { readonly kind: "overtaken"; readonly who: string; readonly did: string }
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
  "no-such-conversation": () => "This conversation is not in this tray.",
  "no-such": ({ what }) => `There is no such ${what} any more.`,
  "readers-only-read": () => "You may only read this tray; its members can decide.",
  "only-reads": ({ name }) => `${name} may only read this tray; assign it to a member instead.`,
  away: ({ back, cover, name }) =>
    `${name} is away until ${back}. ${cover === null ? "Nobody covers for them here." : `${cover} covers.`}`,
  "nobody-there": ({ name }) => `Nobody of “${name}” is there now; choose somebody else.`,
  "no-access": ({ names }) =>
    `${names.join(" and ")} cannot look into this tray and would not see it. Take the name out, or have them let in first.`,
  "not-your-note": () => "That is somebody else’s note; write one of your own.",
  "note-stands": () => "A note can be edited for half an hour. Add another one.",
  "category-retired": ({ name }) => `“${name}” is retired; what has it keeps it, but it is not given any more.`,
  overtaken: ({ did, who }) => `Not done: ${who} ${did} meanwhile. This is how it stands now.`,
  "new-message": ({ who }) => `Not done: ${who} wrote meanwhile. Read it first, then decide again.`,
  "same-conversation": () => "That is this conversation itself; choose another one.",
  "nothing-would-stay": () => "Everything hangs on that message: nothing would stay here.",
  "nothing-to-undo": () => "There is nothing left to undo.",
  "nothing-to-redo": () => "There is nothing to do again.",
  "nothing-chosen": () => "Nothing is selected any more. Select what it is about.",
  "too-many": ({ most }) => `That is more than ${most.toLocaleString("en")} at once; narrow the list first.`,
  "ended-already": () => "It has ended already.",
  "date-is-past": () => "That day is over; choose one to come.",
  "file-first": () => "This tray settles only what is filed. File it to a record first.",
  "nothing-awaited": () => "Nothing is awaited there any more.",
};
