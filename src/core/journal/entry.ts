import type { Kept } from "../../texts/stored";
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
  RoundId,
} from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { ReminderStyle } from "../kernel/reminder-style";
import type { Urgency } from "../kernel/urgency";
import type { FieldValues } from "../records/filing-field";
import type { Filing, MessagePart } from "../records/filing-means";
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
  /** Until the next hour of a round, which had this name then. */
  | { readonly kind: "held"; readonly roundId: RoundId; readonly round: string }
  /** Into the tray from a round: by hand, or at its hour. */
  | { readonly kind: "let-in" }
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
  | { readonly kind: "send-failed"; readonly messageId: MessageId; readonly reason: Kept }
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
  /** A colleague was told of it by a rule. */
  | { readonly kind: "told"; readonly memberId: MemberId }
  /** Whoever is awaited is reminded again and again, in somebody's name. */
  | ({
      readonly kind: "reminders-begun";
      readonly expectationId: ExpectationId;
      readonly inNameOf: MemberId;
    } & ReminderStyle)
  /** The mail systems on its way were asked to report what becomes of a message of ours. */
  | { readonly kind: "report-asked"; readonly messageId: MessageId }
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
