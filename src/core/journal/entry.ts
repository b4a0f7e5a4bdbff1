import type { EmailAddress } from "../kernel/email-address";
import type {
  CategoryId,
  ConversationId,
  DraftId,
  EntryId,
  ExpectationId,
  FollowUpId,
  MemberId,
  MessageId,
  RecordId,
} from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { Urgency } from "../kernel/urgency";
import type { FieldValues } from "../records/filing-field";
import { type Filing, type MessagePart, partKey } from "../records/filing-means";
import type { Awaited } from "./awaited";
import type { RuleMark } from "./rule-mark";

/** One effect on a conversation, decided by a person or found out by the system. What happened, never what it led to. */
export type Effect =
  | { readonly kind: "assigned"; readonly ownerId: MemberId | null }
  | { readonly kind: "categorised"; readonly categoryId: CategoryId }
  | { readonly kind: "uncategorised"; readonly categoryId: CategoryId }
  | ({ readonly kind: "filed" } & Filing)
  | { readonly kind: "unfiled"; readonly recordId: RecordId }
  /** Where it is filed already, it has these particulars now. */
  | { readonly kind: "particulars-set"; readonly recordId: RecordId; readonly fields: FieldValues }
  /** A message of it alone is on a record, or one of its attachments. */
  | ({ readonly kind: "part-filed" } & Filing & MessagePart)
  | ({ readonly kind: "part-unfiled"; readonly recordId: RecordId } & MessagePart)
  /** By hand: there is something to do for us, whatever the mail says. */
  | { readonly kind: "kept" }
  | { readonly kind: "settled" }
  | { readonly kind: "binned" }
  /** Out of the bin or out of junk, back to where it has to be decided. */
  | { readonly kind: "restored" }
  | { readonly kind: "junked" }
  | {
      readonly kind: "rested";
      /** Null rests until somebody writes. */
      readonly until: Instant | null;
      /** True when it rests to its end whoever writes meanwhile. */
      readonly evenIfAnswered?: boolean;
    }
  | { readonly kind: "rest-ended" }
  | {
      readonly kind: "expected";
      readonly expectationId: ExpectationId;
      /** Whom we await; nobody named means anybody outside. The others say how: left out they mean any of them, and only them. */
      readonly from: readonly EmailAddress[];
      readonly need?: Awaited["need"];
      readonly organisation?: string;
      readonly colleagueId?: MemberId;
      readonly aliases?: Awaited["aliases"];
      readonly until: Instant | null;
      /** The message that asked, when the expectation was made on sending. */
      readonly messageId: MessageId | null;
    }
  | { readonly kind: "withdrawn"; readonly expectationId: ExpectationId }
  /** Its date is another one by hand. */
  | { readonly kind: "extended"; readonly expectationId: ExpectationId; readonly until: Instant | null }
  /** Other addresses of those who are awaited came to be known. */
  | {
      readonly kind: "also-awaited";
      readonly expectationId: ExpectationId;
      readonly aliases: Awaited["aliases"];
    }
  /** A message that says "thanks, will do" and answers nothing. */
  | { readonly kind: "acknowledged"; readonly messageId: MessageId }
  /** By hand: it stops to matter then, or matters for good. */
  | { readonly kind: "expiry-set"; readonly at: Instant | null }
  /** That moment came before anybody did anything about it. */
  | { readonly kind: "lapsed" }
  /** By hand, until the next message that counts: no answer is needed, or it is still our move. */
  | { readonly kind: "turn-set"; readonly turn: "us" | "nobody" }
  | { readonly kind: "send-failed"; readonly messageId: MessageId; readonly reason: string }
  /** Somebody left the mailing list that it came through, which cannot be taken back from here. */
  | { readonly kind: "list-left"; readonly list: string; readonly by: "one-click" | "mail" }
  /** `mentions` are the colleagues whom the text names to be told. */
  | { readonly kind: "noted"; readonly text: string; readonly mentions?: readonly MemberId[] }
  /** The text of an earlier note is another one since. */
  | {
      readonly kind: "note-edited";
      readonly entryId: EntryId;
      readonly text: string;
      readonly mentions?: readonly MemberId[];
    }
  | { readonly kind: "followed"; readonly memberId: MemberId }
  | { readonly kind: "unfollowed"; readonly memberId: MemberId }
  /** A draft went on to a colleague: to check and send it, or back to be written anew. */
  | { readonly kind: "draft-handed"; readonly draftId: DraftId; readonly to: MemberId; readonly note: string }
  | { readonly kind: "draft-returned"; readonly draftId: DraftId; readonly to: MemberId; readonly note: string }
  | { readonly kind: "draft-given-up"; readonly draftId: DraftId }
  | { readonly kind: "urgency-set"; readonly urgency: Urgency }
  | {
      readonly kind: "follow-up-set";
      readonly followUpId: FollowUpId;
      readonly forMember: MemberId;
      /** Null for one without a date. */
      readonly dueAt: Instant | null;
      readonly text: string;
    }
  | { readonly kind: "follow-up-done"; readonly followUpId: FollowUpId }
  | { readonly kind: "follow-up-cleared"; readonly followUpId: FollowUpId }
  /** Another conversation became a part of this one: what was in it, at its places there. */
  | {
      readonly kind: "joined";
      readonly conversationId: ConversationId;
      readonly subject: string;
      readonly messages: readonly { readonly id: MessageId; readonly version: number }[];
      readonly entries: readonly { readonly id: EntryId; readonly version: number }[];
    }
  /** Some messages became a conversation of their own: their places here. */
  | {
      readonly kind: "split-off";
      readonly conversationId: ConversationId;
      readonly subject: string;
      readonly messages: readonly { readonly id: MessageId; readonly version: number }[];
    };

export type EffectKind = Effect["kind"];

/** An effect in the journal of a conversation. `version` is the conversation's place in order: it rises with every entry and message. */
export type JournalEntry = {
  readonly id: EntryId;
  readonly version: number;
  readonly at: Instant;
  /** Null when the system found it out, or a rule did it. */
  readonly by: MemberId | null;
  /** The rule that did it, where one did. */
  readonly rule?: RuleMark;
  readonly effect: Effect;
};

/** What an effect is about: effects of one aspect overwrite each other, those of different ones never meet. */
export type Aspect =
  | "owner"
  | "urgency"
  | "standing"
  | "fact"
  | `category:${string}`
  | `record:${string}`
  | `particulars:${string}`
  | `part:${string}`
  | `follow-up:${string}`
  | `follower:${string}`
  | `expectation:${string}`
  | "expiry"
  | `acknowledged:${string}`
  | "note";

/** What happened and cannot be taken back: found out by the tray, or done outside of the conversation. */
export const FACT_KINDS: readonly EffectKind[] = [
  "send-failed",
  "list-left",
  "rest-ended",
  "also-awaited",
  "lapsed",
  "draft-handed",
  "draft-returned",
  "draft-given-up",
];

/** The aspect of a conversation that an effect sets. A fact is not anybody's decision and stands for itself. */
export function aspectOf(effect: Effect): Aspect {
  if (FACT_KINDS.includes(effect.kind)) return "fact";
  switch (effect.kind) {
    case "assigned":
      return "owner";
    case "categorised":
    case "uncategorised":
      return `category:${effect.categoryId}`;
    case "filed":
    case "unfiled":
      return `record:${effect.recordId}`;
    case "particulars-set":
      return `particulars:${effect.recordId}`;
    case "part-filed":
    case "part-unfiled":
      return `record:${effect.recordId}/${partKey(effect)}`;
    case "noted":
    case "note-edited":
      return "note";
    case "followed":
    case "unfollowed":
      return `follower:${effect.memberId}`;
    case "urgency-set":
      return "urgency";
    case "follow-up-set":
    case "follow-up-done":
    case "follow-up-cleared":
      return `follow-up:${effect.followUpId}`;
    case "extended":
      return `expectation:${effect.expectationId}`;
    case "expiry-set":
      return "expiry";
    case "acknowledged":
      return `acknowledged:${effect.messageId}`;
    case "joined":
    case "split-off":
      return `part:${effect.conversationId}`;
    default:
      return "standing";
  }
}

/** True for what can be taken back: a person's decision, what a rule did, or what the tray joined; never a fact. */
export function canBeUndone({ by, rule, effect }: Pick<JournalEntry, "by" | "rule" | "effect">): boolean {
  return aspectOf(effect) !== "fact" && (by !== null || rule !== undefined || effect.kind === "joined");
}
