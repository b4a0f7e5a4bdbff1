import type { JournalEntry } from "../journal/entry";
import type { MemberId, MessageId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";
import { moveEffect } from "./move-effect";

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

/** A turn with what made it so: the rule, and the message or the member. */
export type TurnAndWhy = {
  readonly kind: Turn["kind"];
  /** When it passed to whoever has it; null while no person has written. */
  readonly since: Instant | null;
  readonly rule: "no-person-wrote" | "they-wrote" | "we-wrote" | "bounced" | "by-hand";
  /** The message for which it is so: the first of theirs that nobody answered, our last, the bounce; null by hand. */
  readonly messageId: MessageId | null;
  /** Who decided it by hand. */
  readonly by: MemberId | null;
};

const NOBODYS: TurnAndWhy = { kind: "nobody", since: null, rule: "no-person-wrote", messageId: null, by: null };

/**
 * Whose move it is with what was decided by hand ("still our move", "no answer needed"), as of a moment: a decision stands
 * until the next message that counts, by date and not by arrival. `asOf` null takes everything that is known.
 */
export function turnOf(
  messages: readonly (Move & { readonly id: MessageId })[],
  entries: readonly JournalEntry[],
  asOf: Instant | null = null,
): TurnAndWhy {
  // What a member called a mere acknowledgement leaves the turn where it was.
  const acknowledged = acknowledgedIn(entries);
  const counting = messages.filter(({ id }) => !acknowledged.has(id));
  const steps = [...counting.flatMap(byMail), ...entries.flatMap(byHand)].filter(
    ({ at }) => asOf === null || at <= asOf,
  );
  let turn = NOBODYS;
  for (const { next } of steps.toSorted((a, b) => a.at - b.at || (a.order < b.order ? -1 : 1))) turn = next(turn);
  return turn;
}

/** The messages that members called acknowledgements, which answer nothing. */
export function acknowledgedIn(entries: readonly JournalEntry[]): ReadonlySet<MessageId> {
  return new Set(entries.flatMap(({ effect }) => (effect.kind === "acknowledged" ? [effect.messageId] : [])));
}

type Step = { readonly at: Instant; readonly order: string; readonly next: (turn: TurnAndWhy) => TurnAndWhy };

function byMail(message: Move & { readonly id: MessageId }): Step[] {
  const rule = moveEffect(message);
  if (rule === "none") return [];
  const { at, id: messageId } = message;
  const kind = rule === "we-wrote" ? "them" : "us";
  const next = (turn: TurnAndWhy): TurnAndWhy => {
    if (turn.kind !== kind) return { kind, since: at, rule, messageId, by: null };
    // The age is that of the first; what they have to answer is our last.
    return rule === "they-wrote" && turn.rule === rule ? turn : { ...turn, rule, messageId, by: null };
  };
  return [{ at, order: messageId, next }];
}

function byHand({ at, by, version, effect }: JournalEntry): Step[] {
  const kind = effect.kind === "kept" ? "us" : effect.kind === "turn-set" ? effect.turn : null;
  if (kind === null) return [];
  // At one moment a decision comes after the message that it is about.
  const next = (turn: TurnAndWhy): TurnAndWhy => ({
    kind,
    rule: "by-hand",
    messageId: null,
    by,
    since: turn.kind === kind ? turn.since : at,
  });
  return [{ at, order: `~${version}`, next }];
}
