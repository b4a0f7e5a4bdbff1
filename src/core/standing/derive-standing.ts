import type { CategoryReplacement } from "../categories/category";
import type { JournalEntry } from "../journal/entry";
import { assertNever } from "../kernel/assert-never";
import type { MemberId, MessageId, RoundId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type AwaitedMessage, type Expectation, expectationsOf, isOpen } from "../turns/expectations";
import { moveEffect } from "../turns/move-effect";
import type { Reason, Standing, StandingKind } from "./standing";

/** A message as far as standings go. `version` is its place in the order in which the conversation learned of things. */
export type MessageFact = AwaitedMessage & {
  readonly version: number;
  /** When the tray received it, or when we sent it off. */
  readonly arrivedAt: Instant;
  readonly fromName: string;
};

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

/** A change of standing and what made it. */
export type StandingChange = { readonly version: number; readonly at: Instant; readonly standing: Standing };

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

/** Where a step leads, or null when the conversation stays where it is. */
type Goes = { readonly kind: StandingKind; readonly reason: Reason } | null;

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

type State = {
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
      apply: () => (message.direction === "out" ? applyOurs(state, message) : applyTheirs(state, message)),
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

// Our message ends the matter unless something is still awaited, or a decision that goes with it says otherwise.
function applyOurs(state: State, message: MessageFact): Goes {
  state.sentAt.set(message.id, message.arrivedAt);
  if (moveEffect(message) !== "we-wrote") return null;
  const open = state.expectations.find(isOpen);
  if (open === undefined) return { kind: "settled", reason: { kind: "answered", by: message.authorId } };
  return state.standing?.kind === "waiting" ? null : waitsFor(state, open);
}

function waitsFor(state: State, { madeBy: by, messageId, until }: Expectation): NonNullable<Goes> {
  const askedAt = messageId === null ? null : (state.sentAt.get(messageId) ?? null);
  return { kind: "waiting", reason: { kind: "asked", by, askedAt, until } };
}

function applyTheirs(state: State, message: MessageFact): Goes {
  const who = message.fromName || message.from;
  const was = state.standing?.kind ?? null;
  const effect = moveEffect(message);
  const arrives: Goes = { kind: "to-sort", reason: { kind: "arrived", who } };
  if (was === null) return arrives;
  if (was === "junk") return null;
  // Whether it is held as well, a rule says.
  if (was === "held") return state.ownerId === null ? arrives : applyTheirAnswer(state, message, was);
  if (effect === "bounced")
    return { kind: "our-move", reason: { kind: "bounced", recipients: message.failedRecipients } };
  if (effect === "they-wrote") return applyTheirAnswer(state, message, was);
  // New list mail has to be looked at; a machine's message in a matter that is dealt with has not.
  return message.kind === "list" && (was === "settled" || was === "bin") ? arrives : null;
}

function applyTheirAnswer(state: State, message: MessageFact, was: StandingKind): Goes {
  if (state.rest?.evenIfAnswered === true || (was === "waiting" && isOnlyAPart(state, message))) return null;
  const who = message.fromName || message.from;
  const undecided = was === "to-sort" || was === "bin" || (was === "settled" && state.ownerId === null);
  return undecided
    ? { kind: "to-sort", reason: { kind: "arrived", who } }
    : { kind: "our-move", reason: { kind: "replied", who, messageId: message.id } };
}

// One of several from whom an answer is awaited wrote, and nothing is complete by that.
function isOnlyAPart({ expectations, before }: State, { id }: MessageFact): boolean {
  const completes = expectations.some((one) => !isOpen(one) && isOpenIn(before, one));
  return !completes && expectations.some((one) => isOpen(one) && one.answers.some(({ messageId }) => messageId === id));
}

function isOpenIn(known: readonly Expectation[], { id }: Expectation): boolean {
  return known.some((one) => one.id === id && isOpen(one));
}

function applyEntry(state: State, entry: JournalEntry): Goes {
  const { effect, by } = entry;
  switch (effect.kind) {
    case "assigned":
      return applyAssigned(state, effect.ownerId, entry);
    case "kept":
      return { kind: "our-move", reason: { kind: "kept", by } };
    case "settled":
      return { kind: "settled", reason: { kind: "settled", by } };
    case "binned":
      return { kind: "bin", reason: { kind: "binned", by } };
    case "junked":
      return { kind: "junk", reason: { kind: "junked", by } };
    case "restored":
      return { kind: "to-sort", reason: { kind: "restored", by } };
    case "rested":
      return applyRested(state, entry, effect);
    case "rest-ended":
      return applyRestEnded(state, entry.at);
    case "held":
      return applyHeld(state, entry, effect);
    case "let-in":
      return applyLetIn(state, entry);
    case "expected":
      return applyExpected(state, entry, effect);
    case "withdrawn":
      return applyWithdrawn(state, entry);
    case "acknowledged":
      return applyAcknowledged(state);
    case "turn-set":
      return effect.turn === "us" ? { kind: "our-move", reason: { kind: "kept", by } } : null;
    case "send-failed":
      return { kind: "our-move", reason: { kind: "not-sent", detail: effect.reason } };
    case "lapsed":
      return { kind: "settled", reason: { kind: "lapsed" } };
    case "expiry-set":
    case "extended":
    case "also-awaited":
    case "categorised":
    case "uncategorised":
    case "filed":
    case "unfiled":
    case "particulars-set":
    case "part-filed":
    case "part-unfiled":
    case "noted":
    case "note-edited":
    case "followed":
    case "unfollowed":
    case "draft-handed":
    case "draft-returned":
    case "draft-given-up":
    case "list-left":
    case "urgency-set":
    case "follow-up-set":
    case "follow-up-done":
    case "follow-up-cleared":
    case "joined":
    case "split-off":
      return null;
    default:
      return assertNever(effect);
  }
}

function applyRested(
  state: State,
  { at, by }: JournalEntry,
  { until, evenIfAnswered = false }: Extract<JournalEntry["effect"], { kind: "rested" }>,
): Goes {
  const from = state.rest?.from ?? state.standing?.kind ?? "to-sort";
  state.rest = { by, at, until, evenIfAnswered, from };
  const stays = evenIfAnswered ? { evenIfAnswered } : {};
  return { kind: "resting", reason: { kind: "rested", by, until, ...stays } };
}

// Somebody may have put it to rest for longer while its first rest ended.
function applyRestEnded(state: State, at: Instant): Goes {
  const { rest } = state;
  if (rest === null || rest.until === null || rest.until > at) return null;
  state.wokenAt = at;
  const reason: Reason = { kind: "rest-ended", by: rest.by, restedAt: rest.at };
  const waits = rest.from === "waiting" && state.expectations.some(isOpen);
  return { kind: rest.from === "to-sort" ? "to-sort" : waits ? "waiting" : "our-move", reason };
}

// What waits for a round may have been held before the message that came last: it goes in with the first that was.
function applyHeld(
  state: State,
  { at, by }: JournalEntry,
  { roundId, round }: Extract<JournalEntry["effect"], { kind: "held" }>,
): Goes {
  const before = state.passages.at(-2)?.standing;
  const isStillHeld = before?.kind === "held" && state.standing?.reason.kind === "arrived";
  const from = state.standing?.kind === "our-move" ? "our-move" : "to-sort";
  state.holding = { roundId, round, at: isStillHeld ? before.since : at, from };
  return { kind: "held", reason: { kind: "held", by, round } };
}

function applyLetIn({ holding }: State, { by }: JournalEntry): Goes {
  if (holding === null) return null;
  return { kind: holding.from, reason: { kind: "let-in", by, round: holding.round, heldAt: holding.at } };
}

function applyAssigned(state: State, ownerId: MemberId | null, { by }: JournalEntry): Goes {
  state.ownerId = ownerId;
  // A rule gives what is held to somebody; who does so by hand has seen it.
  if (state.holding !== null && by === null && ownerId !== null) state.holding = { ...state.holding, from: "our-move" };
  const isHeld = state.standing?.kind === "held" && by !== null;
  const undecided = state.standing === null || state.standing.kind === "to-sort" || isHeld;
  return ownerId !== null && undecided ? { kind: "our-move", reason: { kind: "taken", by, ownerId } } : null;
}

function applyExpected(
  state: State,
  entry: JournalEntry,
  effect: Extract<JournalEntry["effect"], { kind: "expected" }>,
): Goes {
  const made = state.expectations.find(({ id }) => id === effect.expectationId);
  if (made === undefined) throw new Error(`entry ${entry.id} made no expectation`);
  return waitsFor(state, made);
}

function applyWithdrawn(state: State, entry: JournalEntry): Goes {
  if (state.expectations.some(isOpen) || state.standing?.kind !== "waiting") return null;
  return { kind: "our-move", reason: { kind: "withdrawn", by: entry.by } };
}

// What was taken for the answer is none: it is awaited as before.
function applyAcknowledged(state: State): Goes {
  const open = state.expectations.find((one) => isOpen(one) && !isOpenIn(state.before, one));
  return open === undefined ? null : waitsFor(state, open);
}
