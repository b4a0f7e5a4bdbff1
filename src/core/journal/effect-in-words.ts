import { assertNever } from "../kernel/assert-never";
import type { CategoryId, MemberId, RecordId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { URGENCY_NAMES } from "../kernel/urgency";
import type { MessagePart } from "../records/filing-means";
import type { Effect } from "./entry";

/** What things are called, for the words. */
export type Names = {
  readonly member: (id: MemberId) => string;
  readonly category: (id: CategoryId) => string;
  readonly record: (id: RecordId) => string;
  readonly day: (at: Instant) => string;
};

const BY = {
  "one-click": (list: string) => `unsubscribed from ${list}`,
  mail: (list: string) => `unsubscribed from ${list} by mail`,
};

/** An effect as the predicate of a sentence about whoever did it (`by`): "settled it", "filed it to P-26-012". */
export function effectInWords(effect: Effect, names: Names, by: MemberId | null = null): string {
  switch (effect.kind) {
    case "assigned":
      if (effect.ownerId === null) return "removed the owner";
      return effect.ownerId === by ? "took it" : `assigned it to ${names.member(effect.ownerId)}`;
    case "categorised":
      return `added ${names.category(effect.categoryId)}`;
    case "uncategorised":
      return `removed ${names.category(effect.categoryId)}`;
    case "filed":
      return `filed it to ${names.record(effect.recordId)}`;
    case "unfiled":
      return `removed it from ${names.record(effect.recordId)}`;
    case "particulars-set":
      return `changed its particulars on ${names.record(effect.recordId)}`;
    case "part-filed":
      return `filed ${partInWords(effect)} alone to ${names.record(effect.recordId)}`;
    case "part-unfiled":
      return `removed ${partInWords(effect)} from ${names.record(effect.recordId)}`;
    case "kept":
      return "kept it as our move";
    case "settled":
      return "settled it";
    case "binned":
      return "put it in the bin";
    case "restored":
      return "brought it back";
    case "junked":
      return "marked it as junk";
    case "rested":
      return `put it to rest until ${effect.until === null ? "somebody writes" : names.day(effect.until)}`;
    case "rest-ended":
      return "ended its rest";
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
      return `could not send the message: ${effect.reason}`;
    case "list-left":
      return BY[effect.by](effect.list);
    case "noted":
      return "added a note";
    case "note-edited":
      return "edited a note";
    case "followed":
    case "unfollowed":
    case "draft-handed":
    case "draft-returned":
    case "draft-given-up":
      return togetherInWords(effect, names, by);
    case "urgency-set":
      return `set the urgency to ${URGENCY_NAMES[effect.urgency]}`;
    case "follow-up-set": {
      const whose = effect.forMember === by ? "" : ` for ${names.member(effect.forMember)}`;
      return `set a follow-up${whose}${effect.dueAt === null ? "" : ` for ${names.day(effect.dueAt)}`}`;
    }
    case "follow-up-done":
      return "did the follow-up";
    case "follow-up-cleared":
      return "cleared the follow-up";
    case "joined":
      return `merged “${effect.subject || "no subject"}” into it`;
    case "split-off":
      return `split “${effect.subject || "no subject"}” off`;
    default:
      return assertNever(effect);
  }
}

const partInWords = ({ attachment }: MessagePart) => (attachment === null ? "a message" : "an attachment");

type Together = Extract<Effect, { kind: "followed" | "unfollowed" | `draft-${string}` }>;

function togetherInWords(effect: Together, names: Names, by: MemberId | null): string {
  switch (effect.kind) {
    case "followed":
      return effect.memberId === by ? "began to follow it" : `had ${names.member(effect.memberId)} follow it`;
    case "unfollowed":
      return effect.memberId === by ? "stopped following it" : `removed ${names.member(effect.memberId)} as a follower`;
    case "draft-handed":
      return `gave ${names.member(effect.to)} a draft to check and send`;
    case "draft-returned":
      return `gave the draft back to ${names.member(effect.to)}`;
    case "draft-given-up":
      return "discarded the draft";
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

function waitingInWords(effect: Waiting, names: Names): string {
  switch (effect.kind) {
    case "expected":
      return effect.until === null ? "asked for a reply" : `asked for a reply by ${names.day(effect.until)}`;
    case "withdrawn":
      return "stopped waiting for the reply";
    case "extended":
      return effect.until === null
        ? "removed the date of the reply"
        : `moved the date of the reply to ${names.day(effect.until)}`;
    case "also-awaited":
      return "found another address of whom we await";
    case "acknowledged":
      return "marked a message as no answer yet";
    case "expiry-set":
      return effect.at === null ? "removed the expiry" : `set the expiry to ${names.day(effect.at)}`;
    case "lapsed":
      return "settled it, as it had expired";
    case "turn-set":
      return effect.turn === "us" ? "called it still our move" : "said that no answer is needed";
    default:
      return assertNever(effect);
  }
}
