import { tz } from "@date-fns/tz";
import { startOfDay } from "date-fns";
import type { Category } from "../../core/categories/category";
import { inTreeOrder, type Placed } from "../../core/categories/category-tree";
import { inCharge, timeOffAt } from "../../core/cover/covering";
import type { MemberId } from "../../core/kernel/ids";
import { type Instant, instantOf } from "../../core/kernel/instant";
import {
  grantsOf,
  groupsOf,
  type KeptTimeOff,
  type Member,
  type MemberGroup,
  membersOfTray,
  membersWithRoles,
  type Role,
  type TrayGrant,
  timesOffNow,
} from "../../storage/access/index";
import { categoriesOf } from "../../storage/facts/index";
import { type FlowSegment, standingCounts } from "../../storage/lists/index";
import type { Deps } from "../base/deps";

/** What names the people and categories in the lists of a tray; the categories as one reads their tree. */
export type TrayNames = { readonly members: readonly Member[]; readonly categories: readonly Placed<Category>[] };

/** What surrounds every list of a tray: its gauge, its people and categories. */
export type TrayView = TrayNames & {
  readonly flow: readonly FlowSegment[];
  readonly colleagues: readonly ColleagueNow[];
  readonly groups: readonly MemberGroup[];
};

/** A colleague of a tray as she can be met now. */
export type ColleagueNow = Member & {
  readonly role: Role;
  /** Until when she is away, and who covers for her here; null when she is there. */
  readonly away: { readonly until: Instant; readonly coverId: MemberId | null } | null;
};

/** The trays of a member, each with the right to look into it. */
export function traysOf(deps: Deps, member: Member): Promise<TrayGrant[]> {
  return grantsOf(deps.db, member.id, deps.now());
}

/** The gauge of a tray as of now for this member, and what names the people and categories in its lists. */
export async function getTray(deps: Deps, member: Member, grant: TrayGrant): Promise<TrayView> {
  const now = deps.now();
  const dayStart = instantOf(startOfDay(now, { in: tz(member.timeZone) }));
  const [flow, { members, groups }, timesOff, { categories }] = await Promise.all([
    deps.memory.recall(grant.tray.id, "counts", `flow ${dayStart}`, () =>
      standingCounts(deps.db, grant, now, dayStart),
    ),
    deps.memory.recall(grant.tray.id, "people", "around", () => peopleAround(deps, grant)),
    awayNow(deps),
    namesIn(deps, grant),
  ]);
  const colleagues = members.map(({ week: _, ...colleague }) => {
    const off = timeOffAt(colleague.id, now, timesOff);
    const coverId =
      off === null ? null : inCharge(colleague.id, { trayId: grant.tray.id, recordIds: [] }, now, timesOff);
    return { ...colleague, away: off === null ? null : { until: off.until, coverId } };
  });
  return { flow, members, colleagues, groups, categories };
}

async function peopleAround(deps: Deps, grant: TrayGrant) {
  const [members, groups] = await Promise.all([membersWithRoles(deps.db, grant.tray.id), groupsOf(deps.db, grant)]);
  return { members, groups };
}

/** The times off of everybody that go on now. */
export function awayNow(deps: Deps): Promise<KeptTimeOff[]> {
  return deps.memory.recall(null, "people", "away", () => timesOffNow(deps.db, deps.now()));
}

/** The people and categories of a tray. */
export function namesIn(deps: Deps, grant: TrayGrant): Promise<TrayNames> {
  return deps.memory.recall(grant.tray.id, "people", "names", async () => {
    const [members, categories] = await Promise.all([
      membersOfTray(deps.db, grant.tray.id),
      categoriesOf(deps.db, grant.tray.id),
    ]);
    return { members, categories: inTreeOrder(categories) };
  });
}
