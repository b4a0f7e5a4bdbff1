import type { MemberId } from "../../core/kernel/ids";
import { FOLLOW_UP_GROUPS, type FollowUpGroup, followUpGrouper } from "../../core/lists/follow-up-groups";
import { hoursOfTray, type TrayGrant } from "../../storage/access/index";
import { followUpsOf, type ListedFollowUp } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** A group of follow-ups, as far as there are any. */
export type FollowUpList = { readonly group: FollowUpGroup | "done"; readonly followUps: readonly ListedFollowUp[] };

/** The follow-ups of a tray by when they are due, or those that are done; of one member, or of everybody (null). */
export async function getFollowUps(
  deps: Deps,
  grant: TrayGrant,
  asked: { readonly whose: MemberId | null; readonly isDone: boolean },
): Promise<FollowUpList[]> {
  const [followUps, hours] = await Promise.all([followUpsOf(deps.db, grant, asked), hoursOfTray(deps.db, grant.tray)]);
  if (asked.isDone) return followUps.length === 0 ? [] : [{ group: "done", followUps }];
  const groupOf = followUpGrouper(deps.now(), hours);
  return FOLLOW_UP_GROUPS.flatMap((group) => {
    const own = followUps.filter(({ dueAt }) => groupOf(dueAt) === group);
    return own.length === 0 ? [] : [{ group, followUps: own }];
  });
}
