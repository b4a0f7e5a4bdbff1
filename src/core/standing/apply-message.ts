import { isOpen } from "../turns/expectations";
import { moveEffect } from "../turns/move-effect";
import type { StandingKind } from "./standing";
import { type Goes, isOpenIn, type MessageFact, type State, waitsFor } from "./standing-state";

/** Where a message leads a conversation. */
export function applyMessage(state: State, message: MessageFact): Goes {
  return message.direction === "out" ? applyOurs(state, message) : applyTheirs(state, message);
}

// Our message ends the matter unless something is still awaited, or a decision that goes with it says otherwise.
function applyOurs(state: State, message: MessageFact): Goes {
  state.sentAt.set(message.id, message.arrivedAt);
  if (moveEffect(message) !== "we-wrote") return null;
  const open = state.expectations.find(isOpen);
  if (open === undefined) return { kind: "settled", reason: { kind: "answered", by: message.authorId } };
  return state.standing?.kind === "waiting" ? null : waitsFor(state, open);
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
