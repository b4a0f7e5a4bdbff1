import type { Instant } from "../../../core/kernel/instant";
import { dayInWords } from "../../../core/time/day-words";
import type { RuleTrial } from "../../../operations/index.server";
import { speak } from "../base/say.server";

/** What a rule would have been for, as it is shown. */
export type TrialView = {
  readonly of: number;
  readonly count: number;
  /** The newest of them. */
  readonly newest: readonly {
    readonly id: string;
    readonly conversationId: string;
    readonly standing: string;
    readonly when: string;
    readonly who: string;
    readonly subject: string;
    readonly why: string;
  }[];
};

const SHOWN = 50;

/** The trial of a rule in words; of what it would have been for the newest. */
export function trialView({ of, matches }: RuleTrial, now: Instant, zone: string): TrialView {
  const newest = matches.slice(0, SHOWN).map(({ at, why, ...match }) => {
    return { ...match, when: speak(dayInWords(at, now, zone)), why: speak(why) };
  });
  return { of, count: matches.length, newest };
}
