const DAY = new Intl.DateTimeFormat("en-GB", { weekday: "short", timeZone: "UTC" });
const DATE = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone: "UTC" });

/** A calendar day (`YYYY-MM-DD`) in words: "Fri 4 Dec 2026"; as it stands where it is none. */
export function wordsOfDay(day: string): string {
  const at = dateOfDay(day);
  return at === undefined ? day : `${DAY.format(at)} ${DATE.format(at)}`;
}

/** The beginning of a calendar day in UTC; undefined where the text is none. */
export function dateOfDay(day: string): Date | undefined {
  const at = /^\d{4}-\d\d-\d\d$/.test(day) ? new Date(`${day}T00:00:00Z`) : undefined;
  // What the calendar does not have is moved on by the engine, or is no date at all.
  return at === undefined || Number.isNaN(at.getTime()) || dayOfDate(at) !== day ? undefined : at;
}

/** The calendar day of a moment in UTC. */
export function dayOfDate(at: Date): string {
  return at.toISOString().slice(0, 10);
}
