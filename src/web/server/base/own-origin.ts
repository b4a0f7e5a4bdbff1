/** What a browser says of the page that a request comes from. */
export type Sender = {
  /** The `Origin` header (RFC 6454 7). */
  readonly origin: string | undefined;
  /** The `Sec-Fetch-Site` header (W3C Fetch Metadata), which no page can set. */
  readonly fetchSite: string | undefined;
};

/**
 * Whether what is sent comes from a page of ours: its origin is one of `ours`, or the browser itself says that it is the
 * same. Whoever says nothing of either is no browser of a member and is refused as well.
 */
export function isFromOurPage({ origin, fetchSite }: Sender, ours: readonly string[]): boolean {
  // A sandboxed page and one without a referrer say "null", which says nothing.
  const saysNothing = origin === undefined || origin === "null";
  if (!saysNothing && !ours.includes(origin)) return false;
  return fetchSite === undefined ? !saysNothing : fetchSite === "same-origin";
}
