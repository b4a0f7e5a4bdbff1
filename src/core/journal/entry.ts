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

/** One effect on a conversation, decided by a person or found out by the system. What happened, never what it led to. */
export type Effect =
  | { readonly kind: "assigned"; readonly ownerId: MemberId | null }
  | { readonly kind: "categorised"; readonly categoryId: CategoryId }
  | { readonly kind: "uncategorised"; readonly categoryId: CategoryId }
  | { readonly kind: "filed"; readonly recordId: RecordId }
  | { readonly kind: "unfiled"; readonly recordId: RecordId }
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
      /** Whom we await; nobody named means anybody outside. */
      readonly from: readonly EmailAddress[];
      readonly until: Instant | null;
      /** The message that asked, when the expectation was made on sending. */
      readonly messageId: MessageId | null;
    }
  | { readonly kind: "withdrawn"; readonly expectationId: ExpectationId }
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
  /** Null when the system found it out. */
  readonly by: MemberId | null;
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
  | `part:${string}`
  | `follow-up:${string}`
  | `follower:${string}`
  | "note";

/** What happened and cannot be taken back: found out by the tray, or done outside of the conversation. */
export const FACT_KINDS: readonly EffectKind[] = [
  ...(["send-failed", "list-left", "rest-ended"] as const),
  ...(["draft-handed", "draft-returned", "draft-given-up"] as const),
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
    case "joined":
    case "split-off":
      return `part:${effect.conversationId}`;
    default:
      return "standing";
  }
}

/** True for what can be taken back: a person's decision, or what the tray joined; never a fact. */
export function canBeUndone({ by, effect }: Pick<JournalEntry, "by" | "effect">): boolean {
  return aspectOf(effect) !== "fact" && (by !== null || effect.kind === "joined");
}
