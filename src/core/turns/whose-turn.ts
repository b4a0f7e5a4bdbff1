import { assertNever } from "../kernel/assert-never";
import type { Instant } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";

/** Who owes the next message. `since` is when the turn passed to them: the first message of an unbroken run, not the last. */
export type Turn =
  | { readonly kind: "us"; readonly since: Instant }
  | { readonly kind: "them"; readonly since: Instant }
  | { readonly kind: "nobody" };

/** A message as far as turns go: when it was written, which way it went, and what kind it is. */
export type Move = {
  readonly at: Instant;
  readonly direction: "in" | "out";
  readonly kind: MessageKind;
};

/** How a message changes the turn: by whom it is real, or nothing at all. */
export type MoveEffect = "they-wrote" | "we-wrote" | "bounced" | "none";

/** What a message does to the turn. A bounce counts only when it comes in; a machine's message never does, whoever's machine it is. */
export function moveEffect(move: Pick<Move, "direction" | "kind">): MoveEffect {
  switch (move.kind) {
    case "person":
    case "calendar":
      return move.direction === "in" ? "they-wrote" : "we-wrote";
    case "bounce":
      return move.direction === "in" ? "bounced" : "none";
    case "automatic":
    case "delivery-report":
    case "list":
      return "none";
    default:
      return assertNever(move.kind);
  }
}

/**
 * Whose move it is, judged from the mail alone: ours when the last message by a person came from outside or our last one
 * bounced, theirs when it was ours, nobody's when no person wrote. The moves are taken in order of `at`; equal instants
 * keep the order they are given in.
 */
export function whoseTurn(moves: readonly Move[]): Turn {
  let turn: Turn = { kind: "nobody" };
  for (const move of moves.toSorted((a, b) => a.at - b.at)) {
    const effect = moveEffect(move);
    if (effect === "none") continue;
    // A bounce of nothing we know of is still about our mail, so it is ours as well.
    const kind = effect === "we-wrote" ? "them" : "us";
    if (turn.kind !== kind) turn = { kind, since: move.at };
  }
  return turn;
}

/** The newest message that counts for the turn, bounces apart; null when no person wrote. */
export function lastRealMove<M extends Move>(moves: readonly M[]): M | null {
  const real = moves.filter((move) => ["they-wrote", "we-wrote"].includes(moveEffect(move)));
  return real.toSorted((a, b) => a.at - b.at).at(-1) ?? null;
}
