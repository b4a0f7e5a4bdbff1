import type { Cover } from "../../core/cover/covering";
import { type MemberId, type TimeOffId, type TrayId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { OpenHours } from "../../core/worktime/working-hours";
import {
  addTimeOff,
  endTimeOff,
  grantsOf,
  type KeptTimeOff,
  membersWithRoles,
  noteSummaryRead,
  ownTimeOff,
  setWeekOf,
  type TrayGrant,
  timesOffIn,
  timesOffOf,
  weekOf,
} from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { type AbsenceSummary, absenceSummary } from "../../storage/conversation/index";
import { type FilingRecord, recordByCode, recordsByIds } from "../../storage/records/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** The times off of a member that are to come, go on, or whose summary they have not read. */
export function ownTimesOff(deps: Deps, { memberId }: TrayGrant): Promise<readonly KeptTimeOff[]> {
  return timesOffOf(deps.db, memberId, deps.now());
}

/** The same, with the member's own week. */
export async function ownTimes(
  deps: Deps,
  { memberId }: TrayGrant,
): Promise<{ readonly timesOff: readonly KeptTimeOff[]; readonly week: readonly (OpenHours | null)[] | null }> {
  const [timesOff, week] = await Promise.all([timesOffOf(deps.db, memberId, deps.now()), weekOf(deps.db, memberId)]);
  return { timesOff, week };
}

/** Sets a member's own week; null takes the tray's. */
export function setOwnWeek(deps: Deps, { memberId }: TrayGrant, week: readonly (OpenHours | null)[] | null) {
  return setWeekOf(deps.db, memberId, week);
}

export type PlannedTimeOff = {
  /** Null for oneself; another one by those who lead the tray. */
  readonly memberId: MemberId | null;
  readonly from: Instant;
  readonly until: Instant;
  readonly covers: readonly Cover[];
};

/** Plans a time off and who covers. Whoever covers has to decide in that tray, and be somebody else. */
export async function planTimeOff(
  deps: Deps,
  grant: TrayGrant,
  { memberId, from, until, covers }: PlannedTimeOff,
): Promise<Result<TimeOffId, Refusal>> {
  const who = memberId ?? grant.memberId;
  if (who !== grant.memberId && grant.role !== "lead") return err({ kind: "leads-only" });
  if (until <= from || until <= deps.now()) return err({ kind: "date-is-past" });
  const id = trustedId<TimeOffId>(deps.newId());
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<TimeOffId, Refusal>> => {
    const trays = (await grantsOf(trx, who, deps.now())).map(({ tray }) => tray.id);
    if (!trays.includes(grant.tray.id)) return err({ kind: "no-such", what: "member" });
    for (const cover of covers) {
      const refusal = await coverRefusal(trx, grant, who, trays, cover);
      if (refusal !== null) return err(refusal);
    }
    await addTimeOff(trx, { id, memberId: who, from, until, covers });
    return ok(id);
  });
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return done;
}

async function coverRefusal(
  trx: Transaction,
  grant: TrayGrant,
  absent: MemberId,
  trays: readonly TrayId[],
  { trayId, memberId, recordId }: Cover,
): Promise<Refusal | null> {
  if (!trays.includes(trayId)) return { kind: "no-such", what: "tray" };
  const stands = (await membersWithRoles(trx, trayId)).find(({ id }) => id === memberId);
  if (stands === undefined || stands.id === absent) return { kind: "no-such", what: "member" };
  if (stands.role === "reader") return { kind: "only-reads", name: stands.name };
  const isKnown = recordId === null || (await recordsByIds(trx, grant, [recordId])).length === 1;
  return isKnown ? null : { kind: "no-such", what: "record" };
}

/** Ends a time off today, or calls it off; one's own, or as one who leads the tray. */
export async function comeBack(
  deps: Deps,
  grant: TrayGrant,
  memberId: MemberId | null,
  id: TimeOffId,
): Promise<Result<null, Refusal>> {
  const who = memberId ?? grant.memberId;
  if (who !== grant.memberId && grant.role !== "lead") return err({ kind: "leads-only" });
  const ended = await endTimeOff(deps.db, who, id, deps.now());
  if (!ended) return err({ kind: "no-such", what: "timeOff" });
  deps.publishChange({ trayId: grant.tray.id, conversationId: null });
  return ok(null);
}

/** What happened while a member was away, and where each matter is now. */
export type AbsencePage = {
  readonly timeOff: KeptTimeOff;
  readonly happened: readonly AbsenceSummary[];
};

/** The summary of a time off of a member that is over or goes on; null when there is none. */
export async function summaryOf(deps: Deps, grant: TrayGrant, id: TimeOffId): Promise<AbsencePage | null> {
  const timeOff = await ownTimeOff(deps.db, grant.memberId, id);
  if (timeOff === null || timeOff.from > deps.now()) return null;
  return { timeOff, happened: await absenceSummary(deps.db, grant, timeOff.from, timeOff.until) };
}

/** Notes that a summary was read; it is not offered any more. */
export function readSummary(deps: Deps, { memberId }: TrayGrant, id: TimeOffId): Promise<void> {
  return noteSummaryRead(deps.db, memberId, id, deps.now());
}

// Far enough ahead to plan by.
const AHEAD = 90 * DAY;

/** The times off of the colleagues of a tray that go on or are to come, without one's own. */
export async function colleaguesAway(deps: Deps, grant: TrayGrant): Promise<KeptTimeOff[]> {
  const now = deps.now();
  const all = await timesOffIn(deps.db, grant.tray.id, now, later(now, AHEAD));
  return all.filter(({ memberId }) => memberId !== grant.memberId);
}

/** The record of a code, for naming it; null when there is none that the member may know of. */
export function recordOfCode(deps: Deps, grant: TrayGrant, code: string): Promise<FilingRecord | null> {
  return code === "" ? Promise.resolve(null) : recordByCode(deps.db, grant, code);
}
