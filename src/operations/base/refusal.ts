import { assertNever } from "../../core/kernel/assert-never";
import { sizeInWords } from "../../core/kernel/size-in-words";
import type { AskedFields } from "../../core/records/filing-field";
import { takenInWords } from "../../core/records/register-table";

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
  /** She may look into the tray, and nothing else. */
  | { readonly kind: "only-reads"; readonly name: string }
  | { readonly kind: "away"; readonly name: string; readonly back: string; readonly cover: string | null }
  | { readonly kind: "nobody-there"; readonly name: string }
  | { readonly kind: "no-access"; readonly names: readonly string[] }
  | { readonly kind: "not-your-note" }
  | { readonly kind: "note-stands" }
  /** A colleague writes an answer at this moment. */
  | { readonly kind: "also-writing"; readonly who: string }
  /** A colleague answered since the writer began. */
  | { readonly kind: "answered-meanwhile"; readonly who: string }
  | { readonly kind: "draft-changed" }
  | { readonly kind: "last-lead" }
  | { readonly kind: "not-yourself" }
  | { readonly kind: "owns-open"; readonly name: string; readonly count: number }
  | { readonly kind: "category-retired"; readonly name: string }
  | { readonly kind: "not-in-all-trays"; readonly name: string }
  | { readonly kind: "name-there"; readonly name: string }
  | { readonly kind: "changed-since" }
  | { readonly kind: "leads-of-all-only" }
  /** A file that was attached is kept no more. */
  | { readonly kind: "enclosure-gone" }
  | { readonly kind: "too-large"; readonly mostBytes: number }
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
  | { readonly kind: "sender-not-verified" }
  | { readonly kind: "too-many"; readonly most: number }
  | { readonly kind: "ended-already" }
  | { readonly kind: "already-sent" }
  | { readonly kind: "date-is-past" }
  | { readonly kind: "no-recipient" }
  | { readonly kind: "never-open" }
  /** Nothing more is filed on it. */
  | { readonly kind: "record-closed"; readonly code: string }
  /** It wants to know more of what is filed on it. */
  | { readonly kind: "fields-asked"; readonly asked: AskedFields }
  /** The tray settles only what is filed. */
  | { readonly kind: "file-first" }
  | { readonly kind: "record-changed" }
  /** What is to become of what is filed there would be known to fewer, or to others. */
  | { readonly kind: "other-access"; readonly code: string }
  | { readonly kind: "code-there"; readonly code: string }
  | { readonly kind: "shut-out-yourself" }
  /** Only the demo's time can be let pass. */
  | { readonly kind: "real-clock" }
  | { readonly kind: "nothing-awaited" }
  /** Something else is kept by it. */
  | { readonly kind: "policy-borne"; readonly name: string; readonly count: number }
  | { readonly kind: "no-reason" }
  | { readonly kind: "too-arranged" }
  | { readonly kind: "not-due"; readonly code: string }
  /** What would go is not what was shown before. */
  | { readonly kind: "not-as-shown" }
  | { readonly kind: "open-on-record"; readonly code: string; readonly count: number }
  | { readonly kind: "records-under"; readonly code: string };

/** A refusal as the person who tried reads it: what is the matter and how things are now. */
export function refusalInWords(refusal: Refusal): string {
  switch (refusal.kind) {
    case "no-such-conversation":
      return "This conversation is not in this tray.";
    case "readers-only-read":
      return "You may only read this tray; its members can decide.";
    case "no-such":
      return `There is no such ${refusal.what} any more.`;
    case "only-reads":
      return `${refusal.name} may only read this tray; assign it to a member instead.`;
    case "away":
      return `${refusal.name} is away until ${refusal.back}. ${
        refusal.cover === null ? "Nobody covers for them here." : `${refusal.cover} covers.`
      }`;
    case "nobody-there":
      return `Nobody of “${refusal.name}” is there now; choose somebody else.`;
    case "no-access":
      return `${refusal.names.join(" and ")} cannot look into this tray and would not see it. Take the name out, or have them let in first.`;
    case "not-your-note":
      return "That is somebody else’s note; write one of your own.";
    case "note-stands":
      return "A note can be edited for half an hour. Add another one.";
    case "also-writing":
      return `${refusal.who} is writing an answer at this moment. Ask first, or send yours all the same.`;
    case "answered-meanwhile":
      return `${refusal.who} answered while you were writing. Read it first, or send yours all the same.`;
    case "draft-changed":
      return "The draft was changed or sent meanwhile. Your text is kept here.";
    case "last-lead":
      return "A tray needs a lead. Name another one first.";
    case "not-yourself":
      return "You cannot remove your own access. Ask another lead of the tray.";
    case "owns-open":
      return `${refusal.name} owns ${refusal.count} open ${refusal.count === 1 ? "conversation" : "conversations"}; hand them over first.`;
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
    case "sender-not-verified":
      return "The sender is not verified: this message could be from anybody. Show its pictures once instead.";
    case "leads-only":
      return "That is for those who lead the tray.";
    case "nothing-chosen":
      return "Nothing is selected any more. Select what it is about.";
    case "too-many":
      return `That is more than ${refusal.most.toLocaleString("en")} at once; narrow the list first.`;
    case "enclosure-gone":
      return "A file that was attached is not kept any more: take it off and attach it again.";
    case "too-large":
      return `The files come to more than ${sizeInWords(refusal.mostBytes)}, which most mail servers refuse: send some of them apart.`;
    case "ended-already":
      return "It has ended already.";
    case "nothing-to-undo":
      return "There is nothing left to undo.";
    case "already-sent":
      return "That message is already out.";
    case "date-is-past":
      return "That day is over; choose one to come.";
    case "record-closed":
      return `${refusal.code} is closed; reopen it first, or choose another record.`;
    case "fields-asked":
      return `${refusal.asked.code} asks for more of what is filed on it.`;
    case "policy-borne":
      return `${refusal.name} is given to ${refusal.count === 1 ? "something" : `${refusal.count} things`}; give them another policy first.`;
    case "too-arranged":
      return "That is more than one tree can have: at most 500 records and folders, five folders deep.";
    case "no-reason":
      return "Say why; whoever comes to it later has to know.";
    case "not-due":
      return `The term of ${refusal.code} is not over, or something holds it.`;
    case "not-as-shown":
      return "What would go is not what was shown before. Look at it as it is now.";
    case "open-on-record":
      return `${refusal.count === 1 ? "A conversation" : `${refusal.count} conversations`} on ${refusal.code} ${refusal.count === 1 ? "is" : "are"} still open; settle them first.`;
    case "records-under":
      return `Other records stand under ${refusal.code}; they go first.`;
    case "file-first":
      return "This tray settles only what is filed. File it to a record first.";
    case "record-changed":
      return "Somebody changed this record meanwhile. This is how it stands now; what you typed is still here.";
    case "other-access":
      return `${refusal.code} may be known to others than this one; give both the same access first.`;
    case "code-there":
      return takenInWords(refusal.code);
    case "shut-out-yourself":
      return "You would not know of it any more; leave yourself among those who do.";
    case "real-clock":
      return "Only the demo’s time can be let pass.";
    case "never-open":
      return "This tray would never be open; set its hours first.";
    case "nothing-awaited":
      return "Nothing is awaited there any more.";
    case "no-recipient":
      return "Somebody has to get it: fill in To.";
    default:
      return assertNever(refusal);
  }
}
