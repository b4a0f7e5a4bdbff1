import { isDeepStrictEqual } from "node:util";
import { err, ok, type Result } from "../../core/kernel/result";
import { calendarDay } from "../../core/time/calendar-day";
import { everOpens, type WorkingHours } from "../../core/worktime/working-hours";
import { type CalendarDays, calendarDays, type HolidayPlace, holidayPlaces, publicHolidays } from "../../mail/index";
import {
  answerWithinOf,
  filesBeforeSettling,
  hoursOfTray,
  letMembersChangeCategories,
  setAnswerWithin,
  setFilesBeforeSettling,
  setHoursOfTray,
  type TrayGrant,
} from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { type JunkSender, junkSendersOf } from "../../storage/mail/index";
import { binDaysOf, junkDaysOf, setBinDays, setJunkDays } from "../../storage/records/index";
import { officeTexts } from "../../texts/en/office";
import { saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { writtenDown } from "../base/written-down";
import { startComputingAnew } from "../deciding/bulk-run";
import type { Refusal } from "../refusals/refusal";

const said = saidOf(officeTexts);

/** What is the same for everybody in a tray. */
export type TraySettings = {
  readonly hours: WorkingHours;
  /** After how many days the bin is emptied of what lies in it; null when never. */
  readonly binDays: number | null;
  readonly junkSenders: readonly JunkSender[];
  /** How long it gives itself for an answer, in working hours. */
  readonly answerWithin: number;
  /** True when it settles only what is filed. */
  readonly filesFirst: boolean;
  /** After how many days what was called junk goes; null for never. */
  readonly junkDays: number | null;
};

/** How a tray is set up. */
export async function traySettings(deps: Deps, grant: TrayGrant): Promise<TraySettings> {
  const [hours, binDays, junkSenders, answerWithin, filesFirst, junkDays] = await Promise.all([
    hoursOfTray(deps.db, grant.tray),
    binDaysOf(deps.db, grant.tray),
    junkSendersOf(deps.db, grant),
    answerWithinOf(deps.db, grant.tray),
    filesBeforeSettling(deps.db, grant.tray),
    junkDaysOf(deps.db, grant.tray),
  ]);
  return { hours, binDays, junkSenders, answerWithin, filesFirst, junkDays };
}

/** Says whether all members of a tray may create and change its categories; for those who lead it. */
export async function letMembersChange(deps: Deps, grant: TrayGrant, may: boolean): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await letMembersChangeCategories(deps.db, grant.tray, may);
  return ok(null);
}

/** Sets when a tray is staffed, and how long it gives itself for an answer; for those who lead it. */
export async function setUpHours(
  deps: Deps,
  grant: TrayGrant,
  { week, holidays, answerWithin }: Pick<WorkingHours, "week" | "holidays"> & { readonly answerWithin?: number },
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  if (!everOpens({ zone: grant.tray.timeZone, week, holidays }, deps.now())) return err({ kind: "never-open" });
  await inTransaction(deps.db, async (trx) => {
    const before = await hoursOfTray(trx, grant.tray);
    await setHoursOfTray(trx, grant.tray, { week, holidays });
    if (answerWithin !== undefined) await setAnswerWithin(trx, grant.tray, answerWithin);
    if (!isDeepStrictEqual({ week: before.week, holidays: before.holidays }, { week, holidays }))
      await startComputingAnew(trx, deps, grant, writtenDown(said("office.newHoursWorkedOutAgain")));
  });
  return ok(null);
}

/** Sets when what was thrown away goes for good, and whether only what is filed is settled; for those who lead the tray. */
export async function setPuttingAway(
  deps: Deps,
  grant: TrayGrant,
  { binDays, junkDays, filesFirst }: Pick<TraySettings, "binDays" | "junkDays" | "filesFirst">,
): Promise<Result<null, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  await inTransaction(deps.db, async (trx) => {
    await setBinDays(trx, grant.tray, binDays);
    await setJunkDays(trx, grant.tray, junkDays);
    await setFilesBeforeSettling(trx, grant.tray, filesFirst);
  });
  return ok(null);
}

/** The days of a calendar file (RFC 5545) from today on that is to be holidays, and what could not be read of it. */
export function holidaysInCalendar(deps: Deps, grant: TrayGrant, text: string): CalendarDays {
  return calendarDays(text, calendarDay(deps.now(), grant.tray.timeZone));
}

/** The places whose public holidays can be taken over. */
export async function placesWithHolidays(): Promise<HolidayPlace[]> {
  return holidayPlaces();
}

/** The public holidays of a place in this year and the next; null for a place that is not known. */
export async function holidaysOfPlace(deps: Deps, grant: TrayGrant, place: string): Promise<string[] | null> {
  const year = Number(calendarDay(deps.now(), grant.tray.timeZone).slice(0, 4));
  return publicHolidays(place, [year, year + 1]);
}
