import { inCharge, timeOffAt } from "../../core/cover/covering";
import type { ConversationId, MemberId } from "../../core/kernel/ids";
import { DAY, HOUR, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { LooseEndKind } from "../../core/loose-ends/loose-end";
import { workingTimeAgo } from "../../core/worktime/working-hours";
import { answerWithinOf, hoursOfTray, membersOfTray, type TrayGrant, timesOffNow } from "../../storage/access/index";
import {
  countLooseEnds,
  type LooseEnds,
  type LooseEndTerms,
  looseEndsOf,
  sayNoLooseEnd,
  takeNoLooseEndBack,
} from "../../storage/lists/index";
import type { Deps } from "../base/deps";
import type { Stopped } from "../base/directory-cache";
import { stoppedIn } from "../base/routing-cache";
import type { Refusal } from "../refusals/refusal";

/** Every loose end of a tray, as far as any is listed. */
export const ALL_LOOSE_ENDS = { from: 0, limit: 10_000 } as const;

/** What would be forgotten in a tray, kind by kind, the oldest of each first. */
export async function getLooseEnds(
  deps: Deps,
  grant: TrayGrant,
  part: { readonly from: number; readonly limit: number } = ALL_LOOSE_ENDS,
): Promise<LooseEnds> {
  return looseEndsOf(deps.db, grant, await termsOf(deps, grant), part);
}

const COUNT = "loose ends";

/** What of a tray does nothing although it is switched on; for those who lead it, as nobody else can change that. */
export async function getStopped(deps: Deps, grant: TrayGrant): Promise<readonly Stopped[]> {
  const stopped = await stoppedIn(deps, grant.tray.id);
  return stopped.filter(({ memberId }) => (memberId === null ? grant.role === "lead" : memberId === grant.memberId));
}

/** How many conversations of a tray would be forgotten, and how much of it is stopped. */
export async function looseEndCount(deps: Deps, grant: TrayGrant): Promise<number> {
  const counted = deps.memory.recall(grant.tray.id, "counts", COUNT, async () =>
    countLooseEnds(deps.db, grant, await termsOf(deps, grant)),
  );
  const [count, stopped] = await Promise.all([counted, getStopped(deps, grant)]);
  return count + stopped.length;
}

// About as long as the rows of a page take besides.
const SOON_MS = 40;

/** The same, where that is known or soon counted; null otherwise. */
export function looseEndCountIfSoon(deps: Deps, grant: TrayGrant): Promise<number | null> {
  return Promise.race([looseEndCount(deps, grant), deps.pause(SOON_MS).then(() => null)]);
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
  if (!said) return err({ kind: "no-such-conversation" });
  deps.publishChange({ trayId: grant.tray.id, conversationId: id });
  return ok(null);
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
  deps.publishChange({ trayId: grant.tray.id, conversationId: id });
  return ok(null);
}
