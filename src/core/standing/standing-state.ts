import type { MemberId, MessageId, RoundId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type AwaitedMessage, type Expectation, isOpen } from "../turns/expectations";
import type { Reason, Standing, StandingKind } from "./standing";

/** A message as far as standings go. `version` is its place in the order in which the conversation learned of things. */
export type MessageFact = AwaitedMessage & {
  readonly version: number;
  /** When the tray received it, or when we sent it off. */
  readonly arrivedAt: Instant;
  readonly fromName: string;
};

/** A change of standing and what made it. */
export type StandingChange = { readonly version: number; readonly at: Instant; readonly standing: Standing };

/** Where a step leads, or null when the conversation stays where it is. */
export type Goes = { readonly kind: StandingKind; readonly reason: Reason } | null;

/** A rest that is under way. */
type Rest = {
  readonly by: MemberId | null;
  readonly at: Instant;
  readonly until: Instant | null;
  readonly evenIfAnswered: boolean;
  /** Where it was, which is where it comes back to. */
  readonly from: StandingKind;
};

/** What is held for a round. */
type Holding = {
  readonly roundId: RoundId;
  readonly round: string;
  readonly at: Instant;
  /** Where it was, which is where it is let in. */
  readonly from: "to-sort" | "our-move";
};

export type State = {
  standing: Standing | null;
  ownerId: MemberId | null;
  /** What is known of expectations at each step. */
  expectations: readonly Expectation[];
  /** And what was known before it. */
  before: readonly Expectation[];
  rest: Rest | null;
  holding: Holding | null;
  wokenAt: Instant | null;
  sentAt: Map<MessageId, Instant>;
  passages: StandingChange[];
};

/** It waits for what is still expected. */
export function waitsFor(state: State, { madeBy: by, messageId, until }: Expectation): NonNullable<Goes> {
  const askedAt = messageId === null ? null : (state.sentAt.get(messageId) ?? null);
  return { kind: "waiting", reason: { kind: "asked", by, askedAt, until } };
}

/** Whether an expectation was open by what was known then. */
export function isOpenIn(known: readonly Expectation[], { id }: Expectation): boolean {
  return known.some((one) => one.id === id && isOpen(one));
}
