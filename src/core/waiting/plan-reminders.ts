import type { ExpectationId } from "../kernel/ids";
import { DAY, type Instant } from "../kernel/instant";
import type { ConversationFacts } from "../standing/derive-standing";
import { deriveFlow } from "../standing/derive-standing";
import { isOpen } from "../turns/expectations";
import { moveEffect } from "../turns/move-effect";
import { isOpenAt, nextOpening, type WorkingHours, workingDayAfter } from "../worktime/working-hours";
import { firstForBoth } from "./recipient-hours";

/** A series: after so many working days each, as long as nobody answers. */
const SERIES: readonly number[] = [3, 7, 14];

/**
 * When reminders go: the first at once or with the next opening, each further one with the opening of a working day so many
 * days later. None for an office that never opens.
 */
export function reminderTimes(now: Instant, hours: WorkingHours, isSeries: boolean): Instant[] {
  const first = isOpenAt(now, hours) ? now : nextOpening(now, hours);
  if (first === null) return [];
  const later = isSeries ? SERIES : [];
  return [first, ...later.flatMap((days) => workingDayAfter(now, days, hours)?.opens ?? [])];
}

/** When the reminders of a series go that a rule begins: as those of any other, but none just after we wrote. */
export function timesOfBegunSeries(facts: ConversationFacts, now: Instant, hours: WorkingHours): Instant[] {
  return reminderTimes(now, hours, true).slice(wroteLately(facts, now) ? 1 : 0);
}

/** Nobody is reminded twice within this. */
const LEAST_BETWEEN = DAY;

function wroteLately({ messages }: ConversationFacts, now: Instant): boolean {
  return messages.some((message) => moveEffect(message) === "we-wrote" && message.at > now - LEAST_BETWEEN);
}

/** Whether a reminder goes now, goes later, or never. */
export type ReminderVerdict =
  | { readonly kind: "send" }
  | { readonly kind: "later"; readonly at: Instant }
  | {
      readonly kind: "stop";
      readonly reason: "answered" | "no-longer-awaited" | "not-waiting" | "just-written" | "closed";
    };

/**
 * What becomes of a reminder whose time has come: it goes only while the expectation is open and the conversation waits,
 * only in working time of both, and not within a day of our last message. `theirOffset` is how many minutes their clock is
 * ahead of UTC; null where it is not known.
 */
export function verdictOn(
  expectationId: ExpectationId,
  facts: ConversationFacts,
  hours: WorkingHours,
  now: Instant,
  theirOffset: number | null = null,
): ReminderVerdict {
  const flow = deriveFlow(facts);
  const expectation = flow.expectations.find(({ id }) => id === expectationId);
  if (expectation === undefined || !isOpen(expectation)) {
    return { kind: "stop", reason: expectation?.state === "answered" ? "answered" : "no-longer-awaited" };
  }
  if (flow.standing.kind !== "waiting") return { kind: "stop", reason: "not-waiting" };
  if (wroteLately(facts, now)) return { kind: "stop", reason: "just-written" };
  const at = firstForBoth(now, hours, theirOffset);
  if (at === null) return { kind: "stop", reason: "closed" };
  return at === now ? { kind: "send" } : { kind: "later", at };
}
