const MAX_HEADER_BYTES = 64 * 1024;

/**
 * How far the clock that a message is dated with is ahead of UTC, in minutes; null where it does not say. RFC 5322 3.3:
 * "-0000" is a time in UTC that tells nothing of where its writer is, and so do the old names of zones.
 */
export function dateOffsetOf(raw: Uint8Array): number | null {
  const head = Buffer.from(raw.subarray(0, MAX_HEADER_BYTES)).toString("latin1");
  const [fields = ""] = head.split(/\r?\n\r?\n/, 1);
  const date = /^date:((?:.|\r?\n[ \t])*)/im.exec(fields)?.[1] ?? "";
  const [, sign, hours, minutes] = /([+-])(\d\d)(\d\d)\s*(?:\([^)]*\)\s*)?$/.exec(date.trim()) ?? [];
  if (sign === undefined || (sign === "-" && hours === "00" && minutes === "00")) return null;
  const offset = Number(hours) * 60 + Number(minutes);
  return offset > 14 * 60 ? null : (sign === "-" ? -1 : 1) * offset;
}
