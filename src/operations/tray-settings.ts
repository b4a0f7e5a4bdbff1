import { err, ok, type Result } from "../core/kernel/result";
import type { WorkingHours } from "../core/worktime/working-hours";
import {
  binDaysOf,
  hoursOfTray,
  type JunkSender,
  junkSendersOf,
  letMembersChangeCategories,
  setBinDays,
  setHoursOfTray,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";
import type { Refusal } from "./refusal";

/** What is the same for everybody in a tray. */
export type TraySettings = {
  readonly hours: WorkingHours;
  /** After how many days the bin is emptied of what lies in it; null when never. */
  readonly binDays: number | null;
  readonly junkSenders: readonly JunkSender[];
};

/** How a tray is set up. */
export async function traySettings(deps: Deps, grant: TrayGrant): Promise<TraySettings> {
  const [hours, binDays, junkSenders] = await Promise.all([
    hoursOfTray(deps.db, grant.tray),
    binDaysOf(deps.db, grant.tray),
    junkSendersOf(deps.db, grant),
  ]);
  return { hours, binDays, junkSenders };
}

/** Says whether all members of a tray may create and change its categories; for those who lead it. */
export async function letMembersChange(deps: Deps, grant: TrayGrant, may: boolean): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await letMembersChangeCategories(deps.db, grant.tray, may);
  return ok(null);
}

/** Sets the hours and holidays of a tray and the term of its bin; for those who lead it. */
export async function setUpHours(
  deps: Deps,
  grant: TrayGrant,
  { week, holidays, binDays }: Pick<WorkingHours, "week" | "holidays"> & { readonly binDays: number | null },
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await setHoursOfTray(deps.db, grant.tray, { week, holidays });
  await setBinDays(deps.db, grant.tray, binDays);
  return ok(null);
}
