import type { Instant } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { RuleTrial } from "../../../operations/index.server";
import { speak } from "../base/say.server";

type TriedView = {
  readonly id: string;
  readonly conversationId: string;
  readonly standing: string;
  readonly when: string;
  readonly who: string;
  readonly subject: string;
  readonly why: string;
  readonly otherwise: string | null;
};

/** What a rule would have been for, as it is shown. */
export type TrialView = Omit<RuleTrial, "next" | "newest" | "against" | "others"> & {
  /** Where the next messages begin; null where it was tried on all. */
  readonly next: string | null;
  readonly newest: readonly TriedView[];
  readonly against: readonly TriedView[];
  readonly others: readonly {
    readonly id: string;
    readonly name: string;
    readonly count: number;
    readonly isLast: boolean;
    readonly isBefore: boolean;
  }[];
};

/** The trial of a rule in words. */
export function trialView(
  { next, newest, against, others, ...trial }: RuleTrial,
  now: Instant,
  zone: string,
): TrialView {
  const view = ({ at, why, otherwise, ...tried }: RuleTrial["newest"][number]): TriedView => ({
    ...tried,
    when: speak(dayInWords(at, now, zone)),
    why: speak(why),
    otherwise: otherwise === null ? null : speak(otherwise),
  });
  return {
    ...trial,
    next: next === null ? null : `${next.at} ${next.id}`,
    newest: newest.map(view),
    against: against.map(view),
    others,
  };
}
