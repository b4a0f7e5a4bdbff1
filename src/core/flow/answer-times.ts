import type { Instant } from "../kernel/instant";
import type { Mark } from "../turn-line/marks";
import { addWorkingTime, type WorkingHours, workingTimeBetween } from "../worktime/working-hours";

/** A message of ours and the answer that it had. */
export type AnswerTime = { readonly askedAt: Instant; readonly answeredAt: Instant };

/** The answers in an exchange: the first that they wrote after each time that we did. */
export function answersIn(marks: readonly Mark[]): AnswerTime[] {
  const answers: AnswerTime[] = [];
  let askedAt: Instant | null = null;
  for (const [at, kind] of marks.toSorted((a, b) => a[0] - b[0])) {
    if (kind === "w") askedAt = at as Instant;
    else if (kind === "t" && askedAt !== null) {
      answers.push({ askedAt, answeredAt: at as Instant });
      askedAt = null;
    }
  }
  return answers;
}

/** How long somebody takes to answer: working time in milliseconds. */
export type UsualTime = {
  /** From how many answers it is known. */
  readonly count: number;
  readonly median: number;
  /** Nine in ten of her answers came within it. */
  readonly ninetieth: number;
  /** All of them, the shortest first. */
  readonly times: readonly number[];
};

/** Less is chance. */
const LEAST_ANSWERS = 5;

/** How long answers took, in the working time of whoever waited; null where there are too few to say. */
export function usualTime(answers: readonly AnswerTime[], hours: WorkingHours): UsualTime | null {
  if (answers.length < LEAST_ANSWERS) return null;
  const times = answers
    .map(({ askedAt, answeredAt }) => workingTimeBetween(askedAt, answeredAt, hours))
    .toSorted((a, b) => a - b);
  return { count: times.length, median: quantile(times, 0.5), ninetieth: quantile(times, 0.9), times };
}

// The nearest rank: a time that there was, and none in between (Hyndman and Fan 1996, definition 1).
function quantile(sorted: readonly number[], share: number): number {
  return sorted[Math.max(0, Math.ceil(share * sorted.length) - 1)] ?? 0;
}

/** When an answer to a message usually is there: from the median on, until nine in ten are. Null for an office that never opens. */
export function usualSpan(
  askedAt: Instant,
  { median, ninetieth }: UsualTime,
  hours: WorkingHours,
): { readonly from: Instant; readonly to: Instant } | null {
  const [from, to] = [addWorkingTime(askedAt, median, hours), addWorkingTime(askedAt, ninetieth, hours)];
  return from === null || to === null ? null : { from, to };
}

/**
 * How likely an answer that has not come yet comes until a moment, from 0 to 1: of the times that were longer than what has
 * passed, how many were no longer than what will have passed then, of one more than there are (the plotting position of
 * Weibull 1939): it may always take longer than it ever did. Null where none was longer: nothing is known of waiting that
 * long.
 */
export function chanceUntil(
  { times }: UsualTime,
  askedAt: Instant,
  { now, until }: { readonly now: Instant; readonly until: Instant },
  hours: WorkingHours,
): number | null {
  const passed = workingTimeBetween(askedAt, now, hours);
  const longer = times.filter((time) => time > passed);
  if (longer.length === 0) return null;
  const then = workingTimeBetween(askedAt, until, hours);
  return longer.filter((time) => time <= then).length / (longer.length + 1);
}
