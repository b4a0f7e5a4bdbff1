import { type Instant, instantOf } from "../../core/kernel/instant";

// What every question needs to turn what the driver gives into the types of the core.

/** A timestamptz column. */
export function at(column: Date): Instant {
  return instantOf(column);
}

/** A timestamptz column that may be null. */
export function atOrNull(column: Date | null): Instant | null {
  return column === null ? null : instantOf(column);
}

/** A moment, or none, as a parameter. */
export function param(instant: Instant | null): Date | null {
  return instant === null ? null : new Date(instant);
}

/** PostgreSQL's text cannot hold NUL, and unpaired surrogates are no UTF-8. */
export function storableText(text: string): string {
  return text.replaceAll("\0", "\uFFFD").toWellFormed();
}

/** A value as JSON that PostgreSQL can hold, all of its texts as `storableText` has them. */
export function storableJson(value: unknown): string {
  return JSON.stringify(value, (_, one: unknown) => (typeof one === "string" ? storableText(one) : one));
}
