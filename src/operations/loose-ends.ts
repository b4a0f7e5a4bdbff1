import { inCharge, timeOffAt } from "../core/cover/covering";
import type { ConversationId, MemberId } from "../core/kernel/ids";
import { DAY, HOUR, later } from "../core/kernel/instant";
import { err, ok, type Result } from "../core/kernel/result";
import type { LooseEndKind } from "../core/loose-ends/loose-end";
import { workingTimeAgo } from "../core/worktime/working-hours";
import {
  answerWithinOf,
  countLooseEnds,
  hoursOfTray,
  type LooseEnd,
  type LooseEndTerms,
  looseEndsOf,
  membersOfTray,
  sayNoLooseEnd,
  type TrayGrant,
  takeNoLooseEndBack,
  timesOffNow,
} from "../storage/index";
import type { Deps } from "./deps";
import type { Refusal } from "./refusal";

/** What would be forgotten in a tray, the oldest of each kind first. */
export async function lookAtLooseEnds(deps: Deps, grant: TrayGrant): Promise<LooseEnd[]> {
  return looseEndsOf(deps.db, grant, await termsOf(deps, grant));
}

/** How many conversations of a tray would be forgotten. */
export async function looseEndCount(deps: Deps, grant: TrayGrant): Promise<number> {
  return countLooseEnds(deps.db, grant, await termsOf(deps, grant));
}

async function termsOf(deps: Deps, { tray }: TrayGrant): Promise<LooseEndTerms> {
  const now = deps.now();
  const [hours, within, timesOff, members] = await Promise.all([
    hoursOfTray(deps.db, tray),
    answerWithinOf(deps.db, tray),
    timesOffNow(deps.db, now),
    membersOfTray(deps.db, tray.id),
  ]);
  const isAlone = (id: MemberId) =>
    timeOffAt(id, now, timesOff) !== null && inCharge(id, { trayId: tray.id, recordIds: [] }, now, timesOff) === null;
  return {
    now,
    ourMoveBefore: workingTimeAgo(now, within * HOUR, hours) ?? later(now, -365 * DAY),
    lapsingBefore: later(now, 2 * DAY),
    draftBefore: later(now, -DAY),
    answeredAfter: later(now, -7 * DAY),
    away: members.map(({ id }) => id).filter(isAlone),
  };
}

/** Says that a conversation is no loose end, and why; it counts again once something happens in it. */
export async function callNoLooseEnd(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  kind: LooseEndKind,
  reason: string,
): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const said = await sayNoLooseEnd(deps.db, grant, id, kind, { reason, now: deps.now() });
  return said ? ok(null) : err({ kind: "no-such-conversation" });
}

/** Takes that back. */
export async function callLooseEndAgain(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  kind: LooseEndKind,
): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  await takeNoLooseEndBack(deps.db, grant, id, kind);
  return ok(null);
}
