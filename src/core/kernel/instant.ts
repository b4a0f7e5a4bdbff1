import type { Brand } from "./brand";

/** A moment: milliseconds of UTC since 1970, never a local time. */
export type Instant = Brand<number, "Instant">;

export const SECOND = 1_000;
export const MINUTE = 60 * SECOND;
export const HOUR = 60 * MINUTE;
export const DAY = 24 * HOUR;
export const WEEK = 7 * DAY;

/** The moment of a Date that somebody else read (a clock, the database, a header). */
export function instantOf(date: Date): Instant {
  return date.getTime() as Instant;
}

/** A moment from milliseconds of UTC. */
export function instant(milliseconds: number): Instant {
  return milliseconds as Instant;
}

/** The moment as the Date that drivers and formatters ask for. */
export function dateOf(at: Instant): Date {
  return new Date(at);
}

/** A moment so many milliseconds later (earlier when negative). */
export function later(at: Instant, milliseconds: number): Instant {
  return (at + milliseconds) as Instant;
}

/** An ISO 8601 text with a zone or `Z`; null when it is none. */
export function readInstant(text: string): Instant | null {
  const zoned = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:\d\d)$/.test(text);
  const milliseconds = zoned ? Date.parse(text) : Number.NaN;
  return Number.isNaN(milliseconds) ? null : (milliseconds as Instant);
}
