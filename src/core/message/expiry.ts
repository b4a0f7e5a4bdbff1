import type { Instant } from "../kernel/instant";
import { mailDate } from "./mail-date";
import { type Header, headerValue } from "./mail-message";

/** The field by which a message of ours says until when it matters. */
export const EXPIRY_FIELD = "Expiry-Date";

/**
 * When a message stops to matter, as its header says: Expiry-Date, else Expires (both registered by RFC 4021 2.1, from
 * RFC 2156). Null where neither is a date.
 */
export function expiryOf(headers: readonly Header[]): Instant | null {
  const field = headerValue(headers, "expiry-date") ?? headerValue(headers, "expires");
  return field === null ? null : mailDate(field);
}
