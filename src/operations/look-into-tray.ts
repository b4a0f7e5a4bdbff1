import { tz } from "@date-fns/tz";
import { startOfDay } from "date-fns";
import type { Category } from "../core/categories/category";
import { inTreeOrder, type Placed } from "../core/categories/category-tree";
import { instantOf } from "../core/kernel/instant";
import {
  categoriesOf,
  type FlowSegment,
  flowGauge,
  grantsOf,
  type Member,
  membersOfTray,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";

/** What names the people and categories in the lists of a tray; the categories as one reads their tree. */
export type TrayNames = { readonly members: readonly Member[]; readonly categories: readonly Placed<Category>[] };

/** What surrounds every list of a tray: its gauge, its people and categories. */
export type TrayView = TrayNames & { readonly flow: readonly FlowSegment[] };

/** The trays of a member, each with the right to look into it. */
export function traysOf(deps: Deps, member: Member): Promise<TrayGrant[]> {
  return grantsOf(deps.db, member.id, deps.now());
}

/** The gauge of a tray as of now for this member, and what names the people and categories in its lists. */
export async function lookIntoTray(deps: Deps, member: Member, grant: TrayGrant): Promise<TrayView> {
  const now = deps.now();
  const dayStart = instantOf(startOfDay(now, { in: tz(member.timeZone) }));
  const [flow, names] = await Promise.all([flowGauge(deps.db, grant, now, dayStart), namesIn(deps, grant)]);
  return { flow, ...names };
}

/** The people and categories of a tray. */
export async function namesIn(deps: Deps, grant: TrayGrant): Promise<TrayNames> {
  const [members, categories] = await Promise.all([
    membersOfTray(deps.db, grant.tray.id),
    categoriesOf(deps.db, grant.tray.id),
  ]);
  return { members, categories: inTreeOrder(categories) };
}
