import { type AssigneeSuggestions, suggestAssignees } from "../../core/assigning/assignee-suggestions";
import { loadOf, openOf } from "../../core/assigning/load";
import { timeOffAt } from "../../core/cover/covering";
import type { ConversationId } from "../../core/kernel/ids";
import { nextOpening, spanOn, type WorkingHours } from "../../core/worktime/working-hours";
import {
  hoursOfTray,
  membersWithRoles,
  type TrayGrant,
  type TrayMember,
  timesOffNow,
} from "../../storage/access/index";
import { dealtWith, deskParts, shareIn } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** Who of a tray could take a conversation, the likeliest first, and what speaks for each. */
export async function getAssigneeSuggestions(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
): Promise<AssigneeSuggestions[]> {
  const now = deps.now();
  const [members, parts, dealt, timesOff, hours] = await Promise.all([
    membersWithRoles(deps.db, grant.tray.id),
    deskParts(deps.db, grant, now),
    dealtWith(deps.db, grant, id),
    timesOffNow(deps.db, now),
    hoursOfTray(deps.db, grant.tray),
  ]);
  const candidates = members
    .filter(({ role }) => role !== "reader")
    .map((member) => {
      const own = hoursOf(member, hours);
      const span = spanOn(now, own);
      const isAtWork = span !== null && span.opens <= now && now < span.closes;
      return {
        memberId: member.id,
        withPerson: shareIn(dealt, member.id, "person"),
        withRecord: shareIn(dealt, member.id, "record"),
        withCategory: shareIn(dealt, member.id, "category"),
        load: loadOf(member.id, parts),
        open: openOf(member.id, parts),
        awayUntil: timeOffAt(member.id, now, timesOff)?.until ?? null,
        atWorkFrom: isAtWork ? null : nextOpening(now, own),
      };
    });
  return suggestAssignees(candidates);
}

/** The working hours of a member: her own week where she has one, with the holidays of the tray. */
export function hoursOf({ week, timeZone }: Pick<TrayMember, "week" | "timeZone">, tray: WorkingHours): WorkingHours {
  return week === null ? tray : { zone: timeZone, week, holidays: tray.holidays };
}
