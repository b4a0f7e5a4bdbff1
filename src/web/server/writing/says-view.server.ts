import { dateOf, type Instant } from "../../../core/kernel/instant";
import type { RecipientWarning } from "../../../core/recipients/recipient-warnings";
import { calendarDay } from "../../../core/time/calendar-day";
import { dayAndTime, dayInWords } from "../../../core/time/day-words";
import type { Found } from "../../../core/writing/detected-questions";
import type { TextSuggestions } from "../../../operations/index.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";
import { type WarningView, warningView } from "./recipient-views.server";

/** A date in a text: its moment, what a form posts of it (a day, or the moment where a time is named), and as one reads it. */
export type SaidDate = { readonly at: string; readonly until: string; readonly words: string };

/** A sentence that asks or promises, with its date; null where it names none. `other` is its second reading. */
export type FoundView = { readonly text: string; readonly date: SaidDate | null; readonly other: SaidDate | null };

/** What a text says, and by when whoever gets it usually has answered. */
export type SaysView = {
  readonly asks: readonly FoundView[];
  readonly promises: readonly FoundView[];
  /** The sentence by which something goes along with it. */
  readonly encloses: string | null;
  readonly usual: SaidDate | null;
  /** What is worth knowing of those it goes to, the gravest first. */
  readonly warnings: readonly WarningView[];
};

export function saysView(
  { asks, promises, encloses, usuallyBy }: TextSuggestions,
  warnings: readonly RecipientWarning[],
  reading: Reading,
): SaysView {
  const found = ({ text, date }: Found): FoundView => ({
    text,
    date: date === null ? null : saidDate(date.at, reading, date.hasTime),
    other: date === null || date.other === null ? null : saidDate(date.other, reading, date.hasTime),
  });
  return {
    asks: asks.map(found),
    promises: promises.map(found),
    encloses,
    usual: usuallyBy === null ? null : saidDate(usuallyBy, reading),
    warnings: warnings.map((warning) => warningView(warning, reading)),
  };
}

/** A date for a form and its reader; a day, or a day with its time. */
function saidDate(at: Instant, { now, zone }: Reading, hasTime = false): SaidDate {
  const iso = dateOf(at).toISOString();
  return hasTime
    ? { at: iso, until: iso, words: speak(dayAndTime(at, now, zone)) }
    : { at: iso, until: calendarDay(at, zone), words: speak(dayInWords(at, now, zone)) };
}
