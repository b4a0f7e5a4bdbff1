import { DAY, HOUR, later, MINUTE } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { nextOpening } from "../../core/worktime/working-hours";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { newestMoment } from "../../storage/base/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** How much time can be let pass at once. */
export const SPANS = ["hour", "opening", "three-days"] as const;
export type Span = (typeof SPANS)[number];

const LENGTHS = { hour: HOUR, "three-days": 3 * DAY } as const;

/** Puts the demo's clock ahead, or to the next opening of a tray, and does what falls due by then; refused where the clock is a real one. */
export async function advanceDemoClock(deps: Deps, grant: TrayGrant, span: Span): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  if (deps.passTime === null) return err({ kind: "real-clock" });
  const now = deps.now();
  if (span !== "opening") deps.passTime(LENGTHS[span]);
  else {
    const opens = nextOpening(now, await hoursOfTray(deps.db, grant.tray));
    if (opens === null) return err({ kind: "never-open" });
    deps.passTime(later(opens, MINUTE) - now);
  }
  return ok(null);
}

/** How far a world is ahead of the clock, in milliseconds, as its time was let pass before; 0 where it is not. */
export async function demoClockAdvance(deps: Deps): Promise<number> {
  const newest = await newestMoment(deps.db);
  return newest === null ? 0 : Math.max(0, newest - deps.now());
}
