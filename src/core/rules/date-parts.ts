import { dateOf, type Instant, later, MINUTE } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";

/** The parts of a date that can be asked for (RFC 5260 4.2). */
export const DATE_PARTS = [
  "year",
  "month",
  "day",
  "date",
  "julian",
  "hour",
  "minute",
  "second",
  "time",
  "iso8601",
  "std11",
  "zone",
  "weekday",
] as const;
export type DatePart = (typeof DATE_PARTS)[number];

const two = (figure: number) => String(figure).padStart(2, "0");
const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
// The Modified Julian Day of the first of January 1970.
const JULIAN_1970 = 40_587;

/** A part of a moment as the clock of an IANA zone or an offset (`+0100`) shows it, in the form of RFC 5260 4.2. */
export function datePart(at: Instant, zone: string, part: DatePart): string {
  const offset = offsetIn(zone);
  const day = offset === null ? zonedDay(at, zone) : zonedDay(later(at, offset * MINUTE), "UTC");
  const second = two(dateOf(at).getUTCSeconds());
  const date = `${String(day.year).padStart(4, "0")}-${two(day.month)}-${two(day.day)}`;
  const time = `${two(day.hour)}:${two(day.minute)}:${second}`;
  const shift = offset ?? shiftAt(at, day);
  const sign = shift < 0 ? "-" : "+";
  const ahead = `${two(Math.floor(Math.abs(shift) / 60))}:${two(Math.abs(shift) % 60)}`;
  const plain = `${sign}${ahead.replace(":", "")}`;
  const parts: Readonly<Record<DatePart, string>> = {
    year: date.slice(0, 4),
    month: two(day.month),
    day: two(day.day),
    date,
    julian: String(day.number + JULIAN_1970),
    hour: two(day.hour),
    minute: two(day.minute),
    second,
    time,
    iso8601: `${date}T${time}${sign}${ahead}`,
    std11: `${DAYS[day.weekday]}, ${two(day.day)} ${MONTHS[day.month - 1]} ${date.slice(0, 4)} ${time} ${plain}`,
    zone: plain,
    // RFC 5260 counts from Sunday.
    weekday: String((day.weekday + 1) % 7),
  };
  return parts[part];
}

/** The minutes that an offset is ahead of UTC; null for what is none. */
function offsetIn(zone: string): number | null {
  const read = /^([+-])(\d\d)(\d\d)$/.exec(zone);
  if (read === null) return null;
  const minutes = Number(read[2]) * 60 + Number(read[3]);
  return read[1] === "-" ? -minutes : minutes;
}

function shiftAt(at: Instant, { number, hour, minute }: ReturnType<typeof zonedDay>): number {
  return number * 24 * 60 + hour * 60 + minute - Math.floor(at / MINUTE);
}
