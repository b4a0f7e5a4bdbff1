import type { Instant } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { LearnedRule } from "../../../operations/index.server";
import { speak } from "../base/say.server";

/** What was learned from some conversations, as it is shown. */
export type LearnedView = Pick<LearnedRule, "proposals" | "actions"> & {
  readonly examples: readonly LearnedFromView[];
  readonly notMeant: readonly LearnedFromView[];
};

type LearnedFromView = {
  readonly id: string;
  readonly who: string;
  readonly subject: string;
  readonly when: string;
};

/** What was learned, with the days of the examples in words. */
export function learnedView(
  { proposals, actions, examples, notMeant }: LearnedRule,
  now: Instant,
  zone: string,
): LearnedView {
  const shown = ({ at, ...one }: LearnedRule["examples"][number]): LearnedFromView => {
    return { ...one, when: speak(dayInWords(at, now, zone)) };
  };
  return { proposals, actions, examples: examples.map(shown), notMeant: notMeant.map(shown) };
}
