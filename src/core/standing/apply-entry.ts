import type { JournalEntry } from "../journal/entry";
import { assertNever } from "../kernel/assert-never";
import type { MemberId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { isOpen } from "../turns/expectations";
import type { Reason } from "./standing";
import { type Goes, isOpenIn, type State, waitsFor } from "./standing-state";

/** Where an entry of the journal leads a conversation. */
export function applyEntry(state: State, entry: JournalEntry): Goes {
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
    case "told":
    case "reminders-begun":
    case "report-asked":
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
