import { journalTexts } from "../../texts/en/journal";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { URGENCY_NAMES } from "../kernel/urgency";
import type { MessagePart } from "../records/filing-means";
import type { Effect } from "./entry";

const said = saidOf(journalTexts);

/** What things are called, for the words. */
export type Names = {
  readonly member: (id: MemberId) => Sayable;
  readonly category: (id: CategoryId) => Sayable;
  readonly record: (id: RecordId) => Sayable;
  readonly day: (at: Instant) => Sayable;
};

const BY = {
  "one-click": (list: string) => said("journal.unsubscribedFrom", { list }),
  mail: (list: string) => said("journal.unsubscribedFromByMail", { list }),
};

/** An effect as the predicate of a sentence about whoever did it (`by`): "settled it", "filed it to P-26-012". */
export function effectInWords(effect: Effect, names: Names, by: MemberId | null = null): Said {
  switch (effect.kind) {
    case "assigned":
      if (effect.ownerId === null) return said("journal.removedTheOwner");
      return effect.ownerId === by
        ? said("journal.tookIt")
        : said("journal.assignedItTo", { member: names.member(effect.ownerId) });
    case "categorised":
      return said("journal.added", { category: names.category(effect.categoryId) });
    case "uncategorised":
      return said("journal.removed", { category: names.category(effect.categoryId) });
    case "filed":
      return said("journal.filedItTo", { record: names.record(effect.recordId) });
    case "unfiled":
      return said("journal.removedItFrom", { record: names.record(effect.recordId) });
    case "particulars-set":
      return said("journal.changedItsParticularsOn", { record: names.record(effect.recordId) });
    case "part-filed":
      return said("journal.filedAloneTo", { part: partInWords(effect), record: names.record(effect.recordId) });
    case "part-unfiled":
      return said("journal.removedFrom", { part: partInWords(effect), record: names.record(effect.recordId) });
    case "kept":
      return said("journal.keptItAsOurMove");
    case "settled":
      return said("journal.settledIt");
    case "binned":
      return said("journal.putItInTheBin");
    case "restored":
      return said("journal.broughtItBack");
    case "junked":
      return said("journal.markedItAsJunk");
    case "rested":
      return effect.until === null
        ? said("journal.putItToRest")
        : said("journal.putItToRestUntil", { day: names.day(effect.until) });
    case "rest-ended":
      return said("journal.endedItsRest");
    case "held":
      return said("journal.heldItFor", { round: effect.round });
    case "let-in":
      return said("journal.letItIn");
    case "expected":
    case "withdrawn":
    case "extended":
    case "also-awaited":
    case "acknowledged":
    case "turn-set":
    case "expiry-set":
    case "lapsed":
      return waitingInWords(effect, names);
    case "send-failed":
      return said("journal.couldNotSendTheMessage", { reason: effect.reason });
    case "list-left":
      return BY[effect.by](effect.list);
    case "noted":
      return said("journal.addedANote");
    case "note-edited":
      return said("journal.editedANote");
    case "followed":
    case "unfollowed":
    case "told":
    case "reminders-begun":
    case "report-asked":
    case "draft-handed":
    case "draft-returned":
    case "draft-given-up":
      return togetherInWords(effect, names, by);
    case "urgency-set":
      return said("journal.setTheUrgencyTo", { name: URGENCY_NAMES[effect.urgency] });
    case "follow-up-set":
      return followUpInWords(effect, names, by);
    case "follow-up-done":
      return said("journal.didTheFollowUp");
    case "follow-up-cleared":
      return said("journal.clearedTheFollowUp");
    case "joined":
      return said("journal.mergedIntoIt", { subject: effect.subject || said("journal.noSubject") });
    case "split-off":
      return said("journal.splitOff", { subject: effect.subject || said("journal.noSubject") });
    default:
      return assertNever(effect);
  }
}

function followUpInWords(
  { forMember, dueAt }: Extract<Effect, { kind: "follow-up-set" }>,
  names: Names,
  by: MemberId | null,
): Said {
  const isOwn = forMember === by;
  const member = names.member(forMember);
  if (dueAt === null) return isOwn ? said("journal.setAFollowUp") : said("journal.setAFollowUpFor", { member });
  const day = names.day(dueAt);
  return isOwn ? said("journal.setAFollowUpOn", { day }) : said("journal.setAFollowUpForOn", { member, day });
}

const partInWords = ({ attachment }: MessagePart) =>
  attachment === null ? said("journal.aMessage") : said("journal.anAttachment");

type Together = Extract<
  Effect,
  { kind: "followed" | "unfollowed" | "told" | "reminders-begun" | "report-asked" | `draft-${string}` }
>;

function togetherInWords(effect: Together, names: Names, by: MemberId | null): Said {
  switch (effect.kind) {
    case "followed":
      return effect.memberId === by
        ? said("journal.beganToFollowIt")
        : said("journal.hadFollowIt", { member: names.member(effect.memberId) });
    case "unfollowed":
      return effect.memberId === by
        ? said("journal.stoppedFollowingIt")
        : said("journal.removedAsAFollower", { member: names.member(effect.memberId) });
    case "told":
      return said("journal.told", { member: names.member(effect.memberId) });
    case "reminders-begun":
      return said("journal.beganToRemind", { member: names.member(effect.inNameOf) });
    case "report-asked":
      return said("journal.askedForAReport");
    case "draft-handed":
      return said("journal.gaveADraftToCheck", { member: names.member(effect.to) });
    case "draft-returned":
      return said("journal.gaveTheDraftBackTo", { member: names.member(effect.to) });
    case "draft-given-up":
      return said("journal.discardedTheDraft");
    default:
      return assertNever(effect);
  }
}

type Waiting = Extract<
  Effect,
  {
    kind:
      | "expected"
      | "withdrawn"
      | "extended"
      | "also-awaited"
      | "acknowledged"
      | "turn-set"
      | "expiry-set"
      | "lapsed";
  }
>;

function waitingInWords(effect: Waiting, names: Names): Said {
  switch (effect.kind) {
    case "expected":
      return effect.until === null
        ? said("journal.askedForAReply")
        : said("journal.askedForAReplyBy", { day: names.day(effect.until) });
    case "withdrawn":
      return said("journal.stoppedWaitingForTheReply");
    case "extended":
      return effect.until === null
        ? said("journal.removedTheDateOfThe")
        : said("journal.movedTheDateOfThe", { day: names.day(effect.until) });
    case "also-awaited":
      return said("journal.foundAnotherAddressOfWhom");
    case "acknowledged":
      return said("journal.markedAMessageAsNo");
    case "expiry-set":
      return effect.at === null
        ? said("journal.removedTheExpiry")
        : said("journal.setTheExpiryTo", { day: names.day(effect.at) });
    case "lapsed":
      return said("journal.settledItAsItHad");
    case "turn-set":
      return effect.turn === "us" ? said("journal.calledItStillOurMove") : said("journal.saidThatNoAnswerIs");
    default:
      return assertNever(effect);
  }
}
