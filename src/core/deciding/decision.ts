import {
  type CategoryId,
  type EntryId,
  type ExpectationId,
  type FollowUpId,
  type GroupId,
  type MemberId,
  type MessageId,
  type RecordId,
  type RoundId,
  trustedId,
} from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { Urgency } from "../kernel/urgency";
import type { FieldValues } from "../records/filing-field";
import type { Filing, MessagePart } from "../records/filing-means";

/** Everything that a member can decide about conversations, one or many at a time. */
export type Decision =
  /** `note` is a word for the new owner; `evenIfAway` gives it to somebody who is away all the same. */
  | {
      readonly kind: "assign";
      readonly ownerId: MemberId | null;
      readonly note?: string;
      readonly evenIfAway?: boolean;
    }
  /** To whoever of a group has least to do. Who that is, only the store knows: it is planned as an assignment. */
  | { readonly kind: "assign-in-turn"; readonly groupId: GroupId; readonly note?: string }
  | { readonly kind: "follow"; readonly memberId: MemberId; readonly follows: boolean }
  | { readonly kind: "categorise"; readonly categoryId: CategoryId; readonly give: boolean }
  /** `part` files a message or an attachment alone, or takes it off. */
  | ({ readonly kind: "file"; readonly settle: boolean; readonly part?: MessagePart } & Filing)
  /** Where it is filed, it is given other particulars; left out while it is not known what its record asks for. */
  | { readonly kind: "particulars"; readonly recordId: RecordId; readonly fields?: FieldValues }
  | { readonly kind: "unfile"; readonly recordId: RecordId; readonly part?: MessagePart }
  | { readonly kind: "keep" }
  | { readonly kind: "settle" }
  | { readonly kind: "bin" }
  | { readonly kind: "restore" }
  | { readonly kind: "junk" }
  /** Until null rests until somebody writes; `evenIfAnswered` rests to its end whoever writes. */
  | { readonly kind: "rest"; readonly until: Instant | null; readonly evenIfAnswered?: boolean }
  /** What only rules decide: out of sight until the next hour of a round, which is called so. */
  | { readonly kind: "hold"; readonly roundId: RoundId; readonly round: string }
  /** Out of a round before its hour. */
  | { readonly kind: "let-in" }
  | { readonly kind: "urgency"; readonly urgency: Urgency }
  | {
      readonly kind: "follow-up";
      readonly followUpId: FollowUpId;
      readonly forMember: MemberId;
      readonly dueAt: Instant | null;
      readonly text: string;
    }
  | { readonly kind: "follow-up-done"; readonly followUpId: FollowUpId }
  | { readonly kind: "follow-up-clear"; readonly followUpId: FollowUpId }
  /** `whom` left out means any of those who wrote; it takes the place of what is awaited unless it comes `besides`. */
  | {
      readonly kind: "expect";
      readonly until: Instant | null;
      readonly expectationId: ExpectationId;
      readonly whom?: Whom;
      readonly colleagueId?: MemberId;
      readonly besides?: boolean;
    }
  | { readonly kind: "extend"; readonly expectationId: ExpectationId; readonly until: Instant | null }
  | { readonly kind: "withdraw"; readonly expectationId: ExpectationId }
  | { readonly kind: "stop-expecting" }
  /** A message of theirs is no answer yet; the newest one where none is named. */
  | { readonly kind: "acknowledge"; readonly messageId: MessageId | null }
  /** When it stops to matter; null for never. */
  | { readonly kind: "expire"; readonly at: Instant | null }
  /** Nobody owes anything: it is settled, and nobody's move until somebody writes. */
  | { readonly kind: "no-answer" }
  | { readonly kind: "note"; readonly text: string; readonly mentions?: readonly MemberId[] }
  | {
      readonly kind: "edit-note";
      readonly entryId: EntryId;
      readonly text: string;
      readonly mentions?: readonly MemberId[];
    };

/** Whom an answer is awaited from: any of them, each of them, anybody outside, anybody of their houses. */
export const WHOM = ["any", "each", "anybody", "house"] as const;
export type Whom = (typeof WHOM)[number];

export type DecisionKind = Decision["kind"];
export type DecisionOf<Kind extends DecisionKind> = Extract<Decision, { readonly kind: Kind }>;

// What the server adds: what is set has an id, another one on each conversation, and a note's text says whom it names.
type Added = { readonly expect: "expectationId"; readonly "follow-up": "followUpId"; readonly note: "mentions" };

/** A kind that is chosen; a note is written anew in its own place, and only rules hold mail back. */
export type ChosenKind = Exclude<DecisionKind, "edit-note" | "hold">;

/** A decision as somebody chooses it, and as a browser posts it. */
export type RowSelection<Kind extends ChosenKind = ChosenKind> = Kind extends keyof Added
  ? Omit<DecisionOf<Kind>, Added[Kind]>
  : DecisionOf<Kind>;

/** A decision with an id of its own for what it sets: once more for each conversation that it is about. */
export function withOwnId(decision: RowSelection | Decision, newId: () => string): Decision {
  switch (decision.kind) {
    case "expect":
      return { ...decision, expectationId: trustedId<ExpectationId>(newId()) };
    case "follow-up":
      return { ...decision, followUpId: trustedId<FollowUpId>(newId()) };
    default:
      return decision;
  }
}
