import { assertNever } from "../kernel/assert-never";
import type { Instant } from "../kernel/instant";
import { ageInWords } from "../time/age-in-words";

/** What would be forgotten, in the order in which it is shown. */
export const LOOSE_ENDS = [
  "not-sent",
  "overdue",
  "asked-and-settled",
  "lapsing",
  "our-move-too-long",
  "owner-away",
  "nobodys",
  "follow-up-past",
  "draft-lying",
  "answered-outside",
  "junk-from-known",
] as const;
export type LooseEndKind = (typeof LOOSE_ENDS)[number];

export const LOOSE_END_NAMES: Readonly<Record<LooseEndKind, string>> = {
  "not-sent": "Not sent, and nobody reacted",
  overdue: "Overdue without a reminder",
  "asked-and-settled": "Settled although we asked",
  lapsing: "Soon over",
  "our-move-too-long": "Our move for too long",
  "owner-away": "With somebody who is away",
  nobodys: "Nobody’s",
  "follow-up-past": "Follow-up past its day",
  "draft-lying": "A draft lies since yesterday",
  "answered-outside": "Answered from outside the tray only",
  "junk-from-known": "Junk from somebody we know",
};

/** True for the name of a kind as it appears in a form. */
export function isLooseEnd(text: string): text is LooseEndKind {
  return (LOOSE_ENDS as readonly string[]).includes(text);
}

/** What can be done about one with one key. */
export type Remedy =
  | "remind"
  | "call"
  | "wait-longer"
  | "stop-waiting"
  | "assign"
  | "answer"
  | "settle"
  | "done"
  | "restore"
  | "reopen";

/** The remedies of a kind, the likeliest first. */
export const REMEDIES: Readonly<Record<LooseEndKind, readonly Remedy[]>> = {
  "not-sent": ["answer", "settle"],
  overdue: ["remind", "call", "wait-longer", "stop-waiting"],
  "asked-and-settled": ["reopen", "stop-waiting"],
  lapsing: ["answer", "settle"],
  "our-move-too-long": ["answer", "assign", "settle"],
  "owner-away": ["assign"],
  nobodys: ["assign", "settle"],
  "follow-up-past": ["done"],
  "draft-lying": ["answer"],
  "answered-outside": ["answer", "reopen"],
  "junk-from-known": ["restore"],
};

/** Why it is one, as a sentence: since when, and what was neither done nor decided since. */
export function looseEndInWords(kind: LooseEndKind, since: Instant, now: Instant): string {
  const age = ageInWords(Math.max(0, now - since));
  switch (kind) {
    case "not-sent":
      return `Our message could not be sent ${age} ago, and nothing was done since.`;
    case "overdue":
      return `The answer was due ${age} ago, and nobody has reminded them.`;
    case "asked-and-settled":
      return `It was settled, and the answer that we asked for was due ${age} ago and never came.`;
    case "lapsing":
      return `What it is about runs out; it has been with us for ${age}.`;
    case "our-move-too-long":
      return `Our move for ${age}, longer than this tray gives itself.`;
    case "owner-away":
      return `Its owner is away and nobody covers; it was last moved ${age} ago.`;
    case "nobodys":
      return `It is our move for ${age} and nobody’s.`;
    case "follow-up-past":
      return `A follow-up was due ${age} ago.`;
    case "draft-lying":
      return `A shared draft lies untouched for ${age}.`;
    case "answered-outside":
      return `One of us answered it ${age} ago from somewhere else, which settled it; nobody has looked at it here since.`;
    case "junk-from-known":
      return `Somebody with whom we have other matters wrote it ${age} ago, and it is in Junk.`;
    default:
      return assertNever(kind);
  }
}
