import { waitingTexts } from "../../texts/en/waiting";
import { type Said, saidOf } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import type { Instant } from "../kernel/instant";
import { ageInWords } from "../time/age-in-words";

const said = saidOf(waitingTexts);

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

export const LOOSE_END_NAMES: Readonly<Record<LooseEndKind, Said>> = {
  "not-sent": said("waiting.notSentAndNobodyReacted"),
  overdue: said("waiting.overdueWithoutAReminder"),
  "asked-and-settled": said("waiting.settledAlthoughWeAsked"),
  lapsing: said("waiting.soonOver"),
  "our-move-too-long": said("waiting.ourMoveForTooLong"),
  "owner-away": said("waiting.withSomebodyWhoIsAway"),
  nobodys: said("waiting.nobodys"),
  "follow-up-past": said("waiting.followUpPastItsDay"),
  "draft-lying": said("waiting.aDraftLiesSinceYesterday"),
  "answered-outside": said("waiting.answeredFromOutsideTheTray"),
  "junk-from-known": said("waiting.junkFromSomebodyWeKnow"),
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
export function looseEndInWords(kind: LooseEndKind, since: Instant, now: Instant): Said {
  const age = ageInWords(Math.max(0, now - since));
  switch (kind) {
    case "not-sent":
      return said("waiting.ourMessageCouldNotBe", { age });
    case "overdue":
      return said("waiting.theAnswerWasDueAgo", { age });
    case "asked-and-settled":
      return said("waiting.itWasSettledAndThe", { age });
    case "lapsing":
      return said("waiting.whatItIsAboutRuns", { age });
    case "our-move-too-long":
      return said("waiting.ourMoveForLongerThan", { age });
    case "owner-away":
      return said("waiting.itsOwnerIsAwayAnd", { age });
    case "nobodys":
      return said("waiting.itIsOurMoveFor", { age });
    case "follow-up-past":
      return said("waiting.aFollowUpWasDue", { age });
    case "draft-lying":
      return said("waiting.aSharedDraftLiesUntouched", { age });
    case "answered-outside":
      return said("waiting.oneOfUsAnsweredIt", { age });
    case "junk-from-known":
      return said("waiting.somebodyWithWhomWeHave", { age });
    default:
      return assertNever(kind);
  }
}
