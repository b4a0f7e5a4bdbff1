import { writingTexts } from "../../texts/en/writing";
import { type Said, saidOf } from "../../texts/said";
import type { MemberId } from "../kernel/ids";
import { DAY, type Instant, later } from "../kernel/instant";
import type { ConversationFacts, MessageFact } from "../standing/derive-standing";
import { moveEffect } from "../turns/move-effect";

const said = saidOf(writingTexts);

/** When a letter goes that does not go at once. */
export type LaterTerms = {
  readonly at: Instant;
  /** It goes only where nobody outside has answered until then. */
  readonly ifSilent: boolean;
  /** It goes only while its conversation is not settled. */
  readonly untilSettled: boolean;
};

/** The same of a letter, or of a series of them: each goes at a moment of its own, on the same terms. */
export type LetterPlan = Omit<LaterTerms, "at"> & { readonly moments: readonly Instant[] };

/** The furthest ahead that a letter can be planned, in days. */
const MOST_DAYS_AHEAD = 730;

/** What is wrong with when a letter is to go; null where it can go then. */
export function laterProblem({ at }: Pick<LaterTerms, "at">, now: Instant): Said | null {
  if (at <= now) return said("writing.laterIsPast");
  return at > later(now, MOST_DAYS_AHEAD * DAY) ? said("writing.laterIsTooFar", { days: MOST_DAYS_AHEAD }) : null;
}

/** What came into a conversation that a letter for it did not know of; `who` as it is shown. */
export type CameBetween =
  | { readonly kind: "answered"; readonly who: string }
  | { readonly kind: "bounced"; readonly who: string }
  | { readonly kind: "colleague-wrote"; readonly memberId: MemberId };

/**
 * The newest message after a version of a conversation that a letter of a member's is held for: one from outside, one that
 * came back, or one of a colleague's. What she wrote herself she knows, and what machines write is no answer. Null for none.
 */
export function cameBetween(
  { messages }: Pick<ConversationFacts, "messages">,
  since: number,
  writerId: MemberId,
): CameBetween | null {
  const unseen = messages.filter(({ version }) => version > since).toReversed();
  for (const message of unseen) {
    const came = cameWith(message, writerId);
    if (came !== null) return came;
  }
  return null;
}

function cameWith(message: MessageFact, writerId: MemberId): CameBetween | null {
  const who = message.fromName || message.from;
  const effect = moveEffect(message);
  if (effect === "they-wrote") return { kind: "answered", who };
  if (effect === "bounced") return { kind: "bounced", who };
  const { authorId } = message;
  if (effect !== "we-wrote" || authorId === null || authorId === writerId) return null;
  return { kind: "colleague-wrote", memberId: authorId };
}

/** What becomes of a letter: it waits on, is held until its writer says what to do, or is not needed any more. */
export type LaterVerdict = "goes" | "held" | "stopped";

/**
 * What becomes of a letter by what came between, and by whether its conversation is settled. One that goes only without an
 * answer has done its work with the answer.
 */
export function verdictOnLater(
  { ifSilent, untilSettled }: Pick<LaterTerms, "ifSilent" | "untilSettled">,
  came: CameBetween | null,
  isSettled: boolean,
): LaterVerdict {
  if (untilSettled && isSettled) return "stopped";
  if (came === null) return "goes";
  return ifSilent && came.kind === "answered" ? "stopped" : "held";
}

/** How late a letter may go before it is shown as late, in milliseconds: what the clock of the server's jobs takes. */
const USUAL_DELAY_MS = 5 * 60_000;

/** Whether a letter went, or would go now, later than it was to: the server was not there at its moment. */
export function wentLate(planned: Instant, went: Instant): boolean {
  return went - planned > USUAL_DELAY_MS;
}
