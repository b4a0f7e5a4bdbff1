import { DAY, type Instant, later } from "../kernel/instant";
import { type WorkingHours, workingDayAfter } from "../worktime/working-hours";
import type { Blank, CountedDays, Filling } from "./blank";
import { datesOf, greetingIn } from "./greeting";

/** What is known of the letter that a template is used for; empty, or null, where it is not. */
export type Known = {
  /** To whom it goes first. */
  readonly theirName: string;
  readonly theirOrganisation: string;
  /** When they wrote last. */
  readonly theyWroteAt: Instant | null;
  readonly recordCode: string;
  readonly recordTitle: string;
  /** Whose the conversation is. */
  readonly owner: string;
  readonly myName: string;
  readonly trayName: string;
};

/** When a template is used, by whose calendar, and in which language (ISO 639-1) its dates and greeting are. */
export type Using = { readonly now: Instant; readonly hours: WorkingHours; readonly language: string };

// What is not asked.
type Computed = Extract<Blank, { readonly kind: CountedDays }> | { readonly kind: Filling };

/** What fills a blank, as text; empty where it is not known. */
export function fillingOf(blank: Computed, known: Known, { now, hours, language }: Using): string {
  const day = (at: Instant | null) => (at === null ? "" : dayIn(language, at, hours.zone));
  switch (blank.kind) {
    case "greeting":
      return greetingIn(language, known.theirName);
    case "their-name":
      return known.theirName;
    case "their-organisation":
      return known.theirOrganisation;
    case "their-day":
      return day(known.theyWroteAt);
    case "record-code":
      return known.recordCode;
    case "record-title":
      return known.recordTitle;
    case "owner":
      return known.owner;
    case "my-name":
      return known.myName;
    case "tray-name":
      return known.trayName;
    case "today":
      return day(now);
    case "in-days":
      return day(later(now, blank.days * DAY));
    case "in-working-days":
      return day(workingDayAfter(now, blank.days, hours)?.opens ?? null);
  }
}

// As a letter says it: "Friday 4 December".
function dayIn(language: string, at: Instant, zone: string): string {
  return new Intl.DateTimeFormat(datesOf(language), {
    weekday: "long",
    day: "numeric",
    month: "long",
    timeZone: zone,
  }).format(at);
}
