import { DAY, type Instant } from "../kernel/instant";

/** A moment as a wall calendar and clock in some time zone show it. */
export type ZonedDay = {
  readonly year: number;
  /** 1 to 12. */
  readonly month: number;
  readonly day: number;
  readonly hour: number;
  readonly minute: number;
  /** Days since the first of January 1970 of that calendar, for counting days between two moments. */
  readonly number: number;
  /** 0 for Monday to 6 for Sunday. */
  readonly weekday: number;
};

const formats = new Map<string, Intl.DateTimeFormat>();

// A list has hundreds of dates; making a formatter costs a hundred times as much as using one.
function formatOf(zone: string): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known !== undefined) return known;
  const numeric = "numeric" as const;
  const fields = {
    year: numeric,
    month: numeric,
    day: numeric,
    hour: numeric,
    minute: numeric,
    hourCycle: "h23" as const,
  };
  const made = new Intl.DateTimeFormat("en-GB", { timeZone: zone, calendar: "gregory", ...fields });
  formats.set(zone, made);
  return made;
}

/** The calendar and clock of a moment in an IANA time zone. Throws a RangeError for a zone that there is not. */
export function zonedDay(at: Instant, zone: string): ZonedDay {
  const [day = 0, month = 0, year = 0, hour = 0, minute = 0] = (formatOf(zone).format(at).match(/\d+/g) ?? []).map(
    Number,
  );
  const number = Math.floor(Date.UTC(year, month - 1, day) / DAY);
  // The first of January 1970 was a Thursday.
  return { year, month, day, hour, minute, number, weekday: (((number + 3) % 7) + 7) % 7 };
}
