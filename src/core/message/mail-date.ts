import { type Instant, instant } from "../kernel/instant";

// Hours ahead of UTC of names of zones that mail has, the old ones of RFC 5322 4.3 and what programs write besides. Where a
// name means several (BST, IST, CST), what mail has it for most.
const ZONES: Readonly<Record<string, number>> = {
  UT: 0,
  UTC: 0,
  GMT: 0,
  Z: 0,
  WET: 0,
  WEST: 1,
  BST: 1,
  CET: 1,
  MET: 1,
  MEZ: 1,
  CEST: 2,
  MEST: 2,
  MESZ: 2,
  EET: 2,
  SAST: 2,
  EEST: 3,
  MSK: 3,
  IST: 5.5,
  JST: 9,
  KST: 9,
  AEST: 10,
  AEDT: 11,
  NZST: 12,
  NZDT: 13,
  EST: -5,
  EDT: -4,
  CST: -6,
  CDT: -5,
  MST: -7,
  MDT: -6,
  PST: -8,
  PDT: -7,
};
const MONTHS = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

// Of a day, month and year with a time: RFC 5322 3.3 and 4.3, with dots or dashes where programs put them.
const WRITTEN =
  /^(?:[^\d,]{1,12},?\s*)?(\d{1,2})[\s.-]+([A-Za-z]{3})[A-Za-z]*[\s.,-]+(\d{2,4}),?\s+(\d{1,2})[:.](\d{2})(?:[:.](\d{2})(?:\.\d+)?)?\s*(.*)$/;
// As C's asctime has it.
const ASCTIME =
  /^[A-Za-z]{3,9},?\s+([A-Za-z]{3})[A-Za-z]*\s+(\d{1,2})\s+(\d{1,2}):(\d{2}):(\d{2})\s+(?:([A-Za-z]{1,5}|[+-]\d{4})\s+)?(\d{4})\s*(.*)$/;
const OFFSET = /^(?:GMT|UTC?)?\s*([+-])(\d{1,2}):?(\d{2})?\b/;
// A day of the calendar that no clock can have shown is as good as none.
const LATEST = Date.UTC(9999, 0, 1);

/**
 * The moment that a date field names (RFC 5322 3.3), also as programs write it: with the name of a zone, a colon in the zone,
 * or in ISO 8601. A zone that is not known counts as UTC, as RFC 5322 4.3 asks. Null where it names none.
 */
export function mailDate(field: string): Instant | null {
  const text = withoutComments(field).trim();
  const milliseconds = ofWritten(text) ?? ofAsctime(text) ?? Date.parse(text);
  return milliseconds >= 0 && milliseconds < LATEST ? instant(milliseconds) : null;
}

function ofWritten(text: string): number | null {
  const [, day = "", month = "", year = "", hour = "", minute = "", second = "0", zone = ""] = WRITTEN.exec(text) ?? [];
  return day === "" || /^[ap]m\b/i.test(zone) ? null : momentOf({ day, month, year, hour, minute, second, zone });
}

function ofAsctime(text: string): number | null {
  const [, month = "", day = "", hour = "", minute = "", second = "", between = "", year = "", after = ""] =
    ASCTIME.exec(text) ?? [];
  return day === "" ? null : momentOf({ day, month, year, hour, minute, second, zone: between || after });
}

type Written = Readonly<Record<"day" | "month" | "year" | "hour" | "minute" | "second" | "zone", string>>;

function momentOf({ day, month, year, hour, minute, second, zone }: Written): number | null {
  const at = MONTHS.indexOf(month.toLowerCase());
  const [days, hours, minutes] = [Number(day), Number(hour), Number(minute)];
  if (at === -1 || days < 1 || days > 31 || hours > 24 || minutes > 59) return null;
  return Date.UTC(yearOf(year), at, days, hours, minutes, Math.min(Number(second), 60)) - offsetOf(zone.trim());
}

// RFC 5322 4.3: two digits are of 2000 to 2049 or of 1950 to 1999, three are counted from 1900.
function yearOf(year: string): number {
  const value = Number(year);
  if (year.length === 3) return value + 1_900;
  return year.length === 2 ? value + (value < 50 ? 2_000 : 1_900) : value;
}

const HOUR_MS = 3_600_000;

function offsetOf(zone: string): number {
  const [, sign, hours = "0", minutes = "0"] = OFFSET.exec(zone) ?? [];
  if (sign !== undefined) {
    const ahead = Number(hours) * HOUR_MS + Number(minutes) * (HOUR_MS / 60);
    return sign === "-" ? -ahead : ahead;
  }
  const name = /^[A-Za-z]{1,5}/.exec(zone)?.[0].toUpperCase() ?? "";
  return (ZONES[name] ?? 0) * HOUR_MS;
}

// Comments may hold comments (RFC 5322 3.2.2).
function withoutComments(field: string): string {
  let [out, depth] = ["", 0];
  for (const character of field.slice(0, 200)) {
    if (character === "(") depth += 1;
    else if (character === ")" && depth > 0) depth -= 1;
    else if (depth === 0) out += character;
  }
  return out;
}
