import { dateOf, type Instant } from "../../core/kernel/instant";
import { dayInWords } from "../../core/standing/day-words";
import { calendarDay } from "../../core/worktime/calendar-day";
import type { Found } from "../../core/writing/asks";
import type { WhatItSays } from "../../operations/index.server";
import type { Reading } from "./words.server";

/** A date in a text as a form posts it and as one reads it. */
export type SaidDate = { readonly at: string; readonly day: string; readonly words: string };

/** A sentence that asks or promises, with its date; null where it names none. `other` is its second reading, month first. */
export type FoundView = { readonly text: string; readonly date: SaidDate | null; readonly other: SaidDate | null };

/** What a text says, and by when whoever gets it usually has answered. */
export type SaysView = {
  readonly asks: readonly FoundView[];
  readonly promises: readonly FoundView[];
  /** The sentence by which something goes along with it. */
  readonly encloses: string | null;
  readonly usual: SaidDate | null;
};

export function saysView({ asks, promises, encloses, usuallyBy }: WhatItSays, reading: Reading): SaysView {
  const found = (one: Found): FoundView => ({
    text: one.text,
    date: one.date === null ? null : saidDate(one.date.at, reading),
    other: one.date === null || one.date.other === null ? null : saidDate(one.date.other, reading),
  });
  return {
    asks: asks.map(found),
    promises: promises.map(found),
    encloses,
    usual: usuallyBy === null ? null : saidDate(usuallyBy, reading),
  };
}

/** A date as a form posts it and as one reads it. */
export function saidDate(at: Instant, { now, zone }: Reading): SaidDate {
  return { at: dateOf(at).toISOString(), day: calendarDay(at, zone), words: dayInWords(at, now, zone) };
}
