import type { CategoryReplacement } from "../categories/category";
import type { JournalEntry } from "../journal/entry";
import type { MemberId, RoundId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type Expectation, expectationsOf, isOpen } from "../turns/expectations";
import { applyEntry } from "./apply-entry";
import { applyMessage } from "./apply-message";
import type { Standing } from "./standing";
import type { Goes, MessageFact, StandingChange, State } from "./standing-state";

export type { MessageFact, StandingChange } from "./standing-state";

/** Everything that happened in one conversation; entries that were undone are not in it. */
export type ConversationFacts = {
  readonly messages: readonly MessageFact[];
  readonly entries: readonly JournalEntry[];
  /** The categories that are no more. */
  readonly replacedCategories: readonly CategoryReplacement[];
  /** The colleagues who are gone. */
  readonly replacedOwners: readonly OwnerReplacement[];
};

/** From when to when somebody was gone (null: still is), and who has had their matters since; null for nobody. */
export type OwnerReplacement = {
  readonly memberId: MemberId;
  readonly successorId: MemberId | null;
  readonly at: Instant;
  readonly until: Instant | null;
};

export const NOTHING_HAPPENED: ConversationFacts = {
  messages: [],
  entries: [],
  replacedCategories: [],
  replacedOwners: [],
};

/** What the facts come to. */
export type Flow = {
  readonly standing: Standing;
  readonly ownerId: MemberId | null;
  readonly expectations: readonly Expectation[];
  readonly restingUntil: Instant | null;
  /** The round that it is held for; null when it is for none. */
  readonly heldFor: RoundId | null;
  /** When its newest rest ended of itself; null when none did. */
  readonly wokenAt: Instant | null;
  /** Every change of standing, oldest first. */
  readonly passages: readonly StandingChange[];
};

/**
 * Where a conversation is and why: a fold over its messages and decisions in the order of their versions, so the same
 * facts give the same answer however they are read. Throws when there are no messages and no entries: such a
 * conversation does not exist.
 */
export function deriveFlow(facts: ConversationFacts): Flow {
  const state: State = {
    standing: null,
    ownerId: null,
    expectations: [],
    before: [],
    rest: null,
    holding: null,
    wokenAt: null,
    sentAt: new Map(),
    passages: [],
  };
  const steps = [
    ...facts.messages.map((message) => ({
      version: message.version,
      at: message.arrivedAt,
      apply: () => applyMessage(state, message),
    })),
    ...facts.entries.map((entry) => ({ version: entry.version, at: entry.at, apply: () => applyEntry(state, entry) })),
  ];
  const gone = facts.replacedOwners;
  // Before the first of them nothing is awaited, and most conversations never await anything.
  const first = Math.min(
    ...facts.entries.flatMap(({ effect, version }) => (effect.kind === "expected" ? version : [])),
  );
  let before: Instant | null = null;
  for (const { version, at, apply } of steps.toSorted((a, b) => a.version - b.version)) {
    state.ownerId = successorOf(state.ownerId, gone, before, at);
    before = at;
    state.before = state.expectations;
    if (version >= first) state.expectations = knownAt(version, facts);
    const goes = apply();
    if (goes !== null) move(state, version, at, goes);
  }
  const { standing, expectations, rest, holding, wokenAt, passages } = state;
  if (standing === null) throw new Error("a conversation without a message or a decision has no standing");
  const ownerId = successorOf(state.ownerId, gone, before, null);
  return {
    standing: withDateNow(standing, expectations),
    ownerId,
    expectations,
    restingUntil: rest?.until ?? null,
    heldFor: holding?.roundId ?? null,
    wokenAt,
    passages,
  };
}

// The dates of expectations and whose answer a message is do not depend on when mail came; what was known does.
function knownAt(version: number, { messages, entries }: ConversationFacts): Expectation[] {
  const sofar = (one: { readonly version: number }) => one.version <= version;
  return expectationsOf(messages.filter(sofar), entries.filter(sofar));
}

// A date that was moved since is said as it is now.
function withDateNow(standing: Standing, expectations: readonly Expectation[]): Standing {
  const { reason } = standing;
  if (reason.kind !== "asked") return standing;
  const open = expectations.filter(isOpen);
  const dates = open.flatMap(({ until }) => until ?? []);
  if (open.length === 0) return standing;
  const until = dates.length === 0 ? null : (Math.min(...dates) as Instant);
  return { ...standing, reason: { ...reason, until } };
}

// Who left has no successor in what happened before, and one in everything since, until they were let in again; `before` is
// the moment since which the owner had it for certain, `at` null the end of all that is known.
function successorOf(
  ownerId: MemberId | null,
  gone: readonly OwnerReplacement[],
  before: Instant | null,
  at: Instant | null,
): MemberId | null {
  const replacement = gone.find(
    (one) =>
      one.memberId === ownerId &&
      (at === null || one.at <= at) &&
      (one.until === null || before === null || before < one.until),
  );
  return replacement === undefined ? ownerId : replacement.successorId;
}

function move(state: State, version: number, at: Instant, { kind, reason }: NonNullable<Goes>): void {
  // Staying where it is keeps the age: the second of two unanswered messages does not make the first one younger.
  const stays = state.standing?.kind === kind && (kind === "to-sort" || kind === "our-move");
  const since = kind === "held" ? (state.holding?.at ?? at) : stays ? (state.standing?.since ?? at) : at;
  state.standing = { kind, since, reason };
  if (kind !== "resting") state.rest = null;
  if (kind !== "held") state.holding = null;
  if (stays) return;
  // An answer and the expectation that goes with it are one step: what stood between them for no time is not told.
  if (state.passages.at(-1)?.at === at) state.passages.pop();
  state.passages.push({ version, at, standing: state.standing });
}
