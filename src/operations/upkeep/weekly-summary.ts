import { type NotificationId, trustedId } from "../../core/kernel/ids";
import type { LooseEndKind } from "../../core/loose-ends/loose-end";
import { endedWeek, weekInWords } from "../../core/notifications/week";
import { allMembers, grantsOf, hoursOfTray, type Member, type TrayGrant } from "../../storage/access/index";
import { addNotifications } from "../../storage/conversation/index";
import { wasNotified, weekFigures } from "../../storage/lists/index";
import type { Deps } from "../base/deps";
import { getLooseEnds } from "../lists/loose-ends";
import { notificationSettingsOf } from "../people/notifications";

/** Sums the week that is over up for those who lead a tray and want it told, once a week and tray; gives how many. */
export async function notifyWeeks(deps: Deps): Promise<number> {
  const now = deps.now();
  let count = 0;
  for (const member of await allMembers(deps.db)) {
    const leading = (await grantsOf(deps.db, member.id, now)).filter(({ role }) => role === "lead");
    if (leading.length === 0) continue;
    const { events } = await notificationSettingsOf(deps, { memberId: member.id });
    if (!events.week.list) continue;
    for (const grant of leading) count += (await notifyOne(deps, member, grant)) ? 1 : 0;
  }
  return count;
}

async function notifyOne(deps: Deps, member: Member, grant: TrayGrant): Promise<boolean> {
  const now = deps.now();
  const week = endedWeek(now, await hoursOfTray(deps.db, grant.tray));
  if (week === null) return false;
  const about = `week:${week.monday}:${grant.tray.id}`;
  if (await wasNotified(deps.db, member.id, about)) return false;
  const [figures, loose] = await Promise.all([
    weekFigures(deps.db, grant.tray.id, week.from, week.to),
    getLooseEnds(deps, grant),
  ]);
  const ends = new Map<LooseEndKind, number>();
  for (const { kind } of loose.rows) ends.set(kind, (ends.get(kind) ?? 0) + 1);
  const id = trustedId<NotificationId>(deps.newId());
  const common = { id, memberId: member.id, trayId: grant.tray.id, conversationId: null, at: now, by: null, count: 1 };
  await addNotifications(deps.db, [{ ...common, event: "week", words: weekInWords({ ...figures, ends }), about }]);
  deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return true;
}
