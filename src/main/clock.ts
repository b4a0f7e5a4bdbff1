import { type Instant, instant, later } from "../core/kernel/instant";

/** The application's clock. The demo's can be put ahead, so that waiting and overdue can be watched. */
export type Clock = {
  readonly now: () => Instant;
  /** What the machine's clock shows at a moment of this one. */
  readonly onTheMachine: (at: Instant) => Instant;
  /** Puts it ahead by so many milliseconds; it never goes back. */
  readonly putAhead: (ms: number) => void;
};

/** A clock that starts at the machine's. */
export function clock(): Clock {
  let ahead = 0;
  return {
    now: () => later(instant(Date.now()), ahead),
    onTheMachine: (at) => later(at, -ahead),
    putAhead(ms) {
      ahead += Math.max(0, ms);
    },
  };
}
