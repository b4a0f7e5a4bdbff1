import { dateOf } from "../../../core/kernel/instant";
import { calendarDay } from "../../../core/time/calendar-day";
import { dayInWords } from "../../../core/time/day-words";
import { endOfWorkingDay } from "../../../core/worktime/add-working-days";
import type { English } from "../../../texts/en/index";
import type { PlainKey } from "../../../texts/say";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A day offered in a picker: what it is called, and the day as the form posts it. */
export type DateChoice = {
  readonly label: string;
  readonly words: string;
  readonly day: string;
  /** Its end, as a form posts a moment. */
  readonly at: string;
};

const OFFERED: readonly (readonly [days: number, label: PlainKey<English>])[] = [
  [1, "deciding.nextWorkingDay"],
  [2, "deciding.in2WorkingDays"],
  [5, "deciding.in5WorkingDays"],
  [10, "deciding.in10WorkingDays"],
];

/** The days offered for a reply or a rest. */
export function dateChoices({ now, zone }: Reading): DateChoice[] {
  return OFFERED.map(([days, label]) => {
    const at = endOfWorkingDay(now, days, zone);
    return {
      label: speak(label),
      words: speak(dayInWords(at, now, zone)),
      day: calendarDay(at, zone),
      at: dateOf(at).toISOString(),
    };
  });
}
