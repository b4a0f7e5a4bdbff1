import { dateOf, type Instant } from "../../../core/kernel/instant";
import type { SeriesStep } from "../../../core/later-letters/series";
import { dayAndTimeInFull } from "../../../core/time/day-words";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";

/** A moment to choose: as a form posts it, and with its weekday, date and time. */
export type DateView = { readonly at: string; readonly words: string };

/** A moment as a screen offers it to this reader. */
export function dateView(at: Instant, { now, zone }: Reading): DateView {
  return { at: dateOf(at).toISOString(), words: speak(dayAndTimeInFull(at, now, zone)) };
}

/** When the letters of a series about a day go, each with its step; what is over cannot be chosen. */
export type SeriesAnswer = {
  readonly steps: readonly (DateView & { readonly step: SeriesStep; readonly isOver: boolean })[];
};

/** What a date field is answered: what is offered, and what the text in it means or why it means nothing. */
export type DateAnswer = {
  readonly offers: readonly (DateView & { readonly label: string })[];
  readonly meant: DateView | null;
  /** What the same words mean to others; null where there is one reading. */
  readonly other: DateView | null;
  readonly problem: string | null;
};
