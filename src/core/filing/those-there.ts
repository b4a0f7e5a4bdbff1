import { inCharge, type TimeOff } from "../cover/covering";
import type { RecordId, TrayId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import type { Evidence } from "./evidence";

/** Where a conversation is: who covers for somebody may depend on it. */
export type Whereabouts = { readonly trayId: TrayId; readonly recordIds: readonly RecordId[] };

/** The evidence as it counts at a moment: what is meant for somebody who is away goes to whoever covers for them, and may own it. */
export function amongThoseThere(
  evidence: Evidence,
  where: Whereabouts,
  at: Instant,
  timesOff: readonly TimeOff[],
): Evidence {
  return {
    ...evidence,
    inCharge(id) {
      const who = inCharge(id, where, at, timesOff);
      return who !== null && evidence.mayOwn.includes(who) ? who : null;
    },
  };
}
