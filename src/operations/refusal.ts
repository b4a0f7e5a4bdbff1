import { assertNever } from "../core/kernel/assert-never";

/** Why something was not done. Expected; a screen says it in words. */
export type Refusal =
  | { readonly kind: "no-such-conversation" }
  | { readonly kind: "readers-only-read" }
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
        | "sender";
    }
  | { readonly kind: "category-retired"; readonly name: string }
  | { readonly kind: "not-in-all-trays"; readonly name: string }
  | { readonly kind: "name-there"; readonly name: string }
  | { readonly kind: "changed-since" }
  | { readonly kind: "leads-of-all-only" }
  /** Somebody decided the same thing since the page was loaded. */
  | { readonly kind: "overtaken"; readonly who: string; readonly did: string }
  /** A message came since the page was loaded. */
  | { readonly kind: "new-message"; readonly who: string }
  | { readonly kind: "same-conversation" }
  | { readonly kind: "nothing-would-stay" }
  | { readonly kind: "nothing-to-undo" }
  | { readonly kind: "nothing-to-redo" }
  | { readonly kind: "nothing-chosen" }
  | { readonly kind: "leads-only" }
  | { readonly kind: "too-many"; readonly most: number }
  | { readonly kind: "ended-already" }
  | { readonly kind: "already-sent" }
  | { readonly kind: "date-is-past" }
  | { readonly kind: "no-recipient" };

/** A refusal as the person who tried reads it: what is the matter and how things are now. */
export function refusalInWords(refusal: Refusal): string {
  switch (refusal.kind) {
    case "no-such-conversation":
      return "This conversation is not in this tray.";
    case "readers-only-read":
      return "You may read this tray; deciding is for its members.";
    case "no-such":
      return `There is no such ${refusal.what} any more.`;
    case "category-retired":
      return `“${refusal.name}” is retired; what has it keeps it, but it is not given any more.`;
    case "not-in-all-trays":
      return `“${refusal.name}” is of this tray alone and cannot stand for one of all trays.`;
    case "name-there":
      return `“${refusal.name}” stands under it and would meet another of that name; rename one first.`;
    case "changed-since":
      return "It was changed again since; take that back first.";
    case "leads-of-all-only":
      return "What is common to all trays is changed by those who lead all of them.";
    case "overtaken":
      return `Not done: ${refusal.who} ${refusal.did} meanwhile. This is how it stands now.`;
    case "new-message":
      return `Not done: ${refusal.who} wrote meanwhile. Read it first, then decide again.`;
    case "same-conversation":
      return "That is this conversation itself; choose another one.";
    case "nothing-would-stay":
      return "Everything hangs on that message: nothing would stay here.";
    case "nothing-to-redo":
      return "There is nothing to do again.";
    case "leads-only":
      return "That is for those who lead the tray.";
    case "nothing-chosen":
      return "Nothing is chosen any more; choose what it is about.";
    case "too-many":
      return `That is more than ${refusal.most.toLocaleString("en")} at once; narrow the list first.`;
    case "ended-already":
      return "It has ended already.";
    case "nothing-to-undo":
      return "There is nothing left to undo.";
    case "already-sent":
      return "That message is already out.";
    case "date-is-past":
      return "That day is over; choose one to come.";
    case "no-recipient":
      return "Somebody has to get it: fill in To.";
    default:
      return assertNever(refusal);
  }
}
