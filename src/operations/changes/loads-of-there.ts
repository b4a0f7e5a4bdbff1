import { loadOf } from "../../core/assigning/load";
import { timeOffAt } from "../../core/cover/covering";
import { type MemberGroup, type TrayGrant, timesOffNow } from "../../storage/access/index";
import { deskParts } from "../../storage/lists/index";
import type { Asking } from "../base/deps";

/** The load of each of a group who is not away. */
export async function loadsOfThere(deps: Asking, grant: Pick<TrayGrant, "tray">, group: MemberGroup) {
  const now = deps.now();
  const [parts, timesOff] = await Promise.all([deskParts(deps.db, grant, now), timesOffNow(deps.db, now)]);
  const there = group.memberIds.filter((id) => timeOffAt(id, now, timesOff) === null);
  return new Map(there.map((id) => [id, loadOf(id, parts)]));
}
