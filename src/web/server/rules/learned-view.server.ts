import type { Instant } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { LearnedRule } from "../../../operations/index.server";
import { speak } from "../base/say.server";

/** What was learned from some conversations, as it is shown. */
export type LearnedView = Pick<LearnedRule, "proposals" | "actions"> & {
  readonly examples: readonly {
    readonly id: string;
    readonly who: string;
    readonly subject: string;
    readonly when: string;
  }[];
};

/** What was learned, with the days of the examples in words. */
export function learnedView({ proposals, actions, examples }: LearnedRule, now: Instant, zone: string): LearnedView {
  return {
    proposals,
    actions,
    examples: examples.map(({ at, ...example }) => ({ ...example, when: speak(dayInWords(at, now, zone)) })),
  };
}
