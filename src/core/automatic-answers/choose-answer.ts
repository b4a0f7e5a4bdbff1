import type { AutomaticAnswerId, MemberId } from "../kernel/ids";
import { DAY, HOUR, type Instant, later } from "../kernel/instant";
import { type AnswerText, type AutomaticAnswer, isInForce } from "./automatic-answer";

/** So many automatic answers go to one person in an hour, whatever they are and however they are set. */
export const MOST_AN_HOUR = 3;

/** What is known of a message at the moment at which it may be answered. */
export type AnswerCircumstances = {
  readonly now: Instant;
  /** Whether the office is open. */
  readonly isOpen: boolean;
  readonly isAway: (id: MemberId) => boolean;
  /** Whether it is about what is a member's. */
  readonly isTheirs: (id: MemberId) => boolean;
};

/** An automatic answer that went to the person. */
export type SentAnswer = { readonly answerId: AutomaticAnswerId; readonly at: Instant };

/** What becomes of a message that may be answered: an answer, one that is held back, or none that is for it (null). */
export type ChosenAnswer =
  | { readonly kind: "send"; readonly answer: AutomaticAnswer; readonly text: AnswerText }
  | { readonly kind: "lately" | "too-many"; readonly answer: AutomaticAnswer };

/**
 * The answer to a message: of those that are in force the first that is for it, by the first of its texts that is. One
 * that went lately keeps others from going instead. `holds` says whether the condition of a text holds for the message,
 * `sent` what went to the person before.
 */
export function chooseAnswer(
  answers: readonly AutomaticAnswer[],
  circumstances: AnswerCircumstances,
  holds: (text: AnswerText) => boolean,
  sent: readonly SentAnswer[],
): ChosenAnswer | null {
  const { now } = circumstances;
  for (const answer of answers) {
    if (!isInForce(answer, now) || !isTriggered(answer, circumstances)) continue;
    const text = answer.texts.find(holds);
    if (text === undefined) continue;
    if (isLately(answer, now, sent)) return { kind: "lately", answer };
    const inHour = sent.filter(({ at }) => at > later(now, -HOUR) && at <= now);
    return inHour.length >= MOST_AN_HOUR ? { kind: "too-many", answer } : { kind: "send", answer, text };
  }
  return null;
}

function isTriggered({ trigger }: AutomaticAnswer, { isOpen, isAway, isTheirs }: AnswerCircumstances): boolean {
  if (trigger.kind === "always") return true;
  if (trigger.kind === "closed") return !isOpen;
  return isAway(trigger.memberId) && isTheirs(trigger.memberId);
}

// From another beginning on, it is another matter.
function isLately({ id, pace, from }: AutomaticAnswer, now: Instant, sent: readonly SentAnswer[]): boolean {
  if (pace.kind === "each") return false;
  const since = Math.max(later(now, -pace.days * DAY), from ?? 0);
  return sent.some(({ answerId, at }) => answerId === id && at > since);
}
