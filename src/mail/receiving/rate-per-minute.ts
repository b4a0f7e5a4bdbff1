const MINUTE_MS = 60_000;
const MAX_SENDERS = 10_000;

/** Counts by sender: whether one more of this sender at this moment (milliseconds) is within the limit of a minute. */
export function ratePerMinute(limit: number): (sender: string, nowMs: number) => boolean {
  const counts = new Map<string, { since: number; count: number }>();
  return (sender, nowMs) => {
    // A flood from ever new addresses must not fill the memory.
    if (counts.size > MAX_SENDERS) counts.clear();
    const known = counts.get(sender);
    if (known === undefined || nowMs - known.since >= MINUTE_MS) {
      counts.set(sender, { since: nowMs, count: 1 });
      return limit >= 1;
    }
    known.count += 1;
    return known.count <= limit;
  };
}
