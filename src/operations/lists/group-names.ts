import { pathInWords } from "../../core/categories/category-tree";
import { type RecordId, trustedId } from "../../core/kernel/ids";
import { isUrgency, URGENCY_NAMES, urgencyRank } from "../../core/kernel/urgency";
import { type MenuDimension, WITHOUT } from "../../core/lists/filter";
import type { Grouping } from "../../core/lists/sheet-view";
import { isStandingKind, STANDING_NAMES, STANDINGS } from "../../core/standing/standing";
import type { TrayGrant } from "../../storage/access/index";
import type { GroupCount } from "../../storage/lists/index";
import { recordsByIds } from "../../storage/records/index";
import { listTexts } from "../../texts/en/list";
import { type Said, type Sayable, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { namesIn } from "../people/get-tray";
import { preferencesOf } from "../people/settings";

const said = saidOf(listTexts);

const WITHOUT_NAMES: Readonly<Record<string, Said>> = {
  owner: said("list.noOwnerInGroup"),
  category: said("list.noCategoryInGroup"),
  record: said("list.notFiled"),
  person: said("list.nobodyNamed"),
  due: said("list.noDate"),
};

const YES_NO: Readonly<Record<string, readonly [yes: Said, no: Said]>> = {
  attachment: [said("list.withAttachmentsInGroup"), said("list.withoutAttachmentsInGroup")],
  unread: [said("list.unreadInGroup"), said("list.readInGroup")],
};

/** Groups with their names, in the order in which people look for them; the one "without" stands last. */
export async function namedGroups(
  deps: Deps,
  grant: TrayGrant,
  by: Grouping | MenuDimension,
  groups: readonly GroupCount[],
): Promise<GroupCount[]> {
  const known = await namesOf(deps, grant, by, groups);
  const named = groups.map((group) => ({
    ...group,
    name:
      group.key === WITHOUT
        ? (WITHOUT_NAMES[by] ?? said("list.none"))
        : (known.get(group.key)?.name ?? (group.name || group.key)),
  }));
  const place = ({ key }: GroupCount) => (key === WITHOUT ? Infinity : (known.get(key)?.place ?? -1));
  return named.toSorted((a, b) => place(a) - place(b) || 0);
}

/** The categories that stand in a member's menu: those that stand there always, and without those only looked for by name. */
export async function categoriesInMenu(
  deps: Deps,
  grant: TrayGrant,
  counted: readonly GroupCount[],
): Promise<GroupCount[]> {
  const [{ categories }, { categoriesListed }] = await Promise.all([namesIn(deps, grant), preferencesOf(deps, grant)]);
  const without = counted.filter(({ key }) => key === WITHOUT);
  const shown = categories.flatMap(({ id, path, listed, retired }) => {
    const when = categoriesListed[id] ?? listed;
    const group = counted.find(({ key }) => key === id);
    if (when === "never") return [];
    if (group === undefined && when === "always" && !retired) return [{ key: id, name: pathInWords(path), count: 0 }];
    return group ?? [];
  });
  return [...shown, ...without];
}

type Named = Map<string, { readonly name: Sayable; readonly place: number }>;

async function namesOf(
  deps: Deps,
  grant: TrayGrant,
  by: Grouping | MenuDimension,
  groups: readonly GroupCount[],
): Promise<Named> {
  const inOrder = (entries: readonly (readonly [string, Sayable])[]): Named =>
    new Map(entries.map(([key, name], place) => [key, { name, place }]));
  switch (by) {
    case "owner":
      return inOrder((await namesIn(deps, grant)).members.map(({ id, name }) => [id, name]));
    case "category": {
      const { categories } = await namesIn(deps, grant);
      return inOrder(
        categories.map(({ id, path, retired }) => [
          id,
          retired ? said("list.retired", { name: pathInWords(path) }) : pathInWords(path),
        ]),
      );
    }
    case "record": {
      const ids = groups.flatMap(({ key }) => (key === WITHOUT ? [] : [trustedId<RecordId>(key)]));
      const records = await recordsByIds(deps.db, grant, ids);
      const byCode = records.toSorted((a, b) => (a.code < b.code ? -1 : 1));
      return inOrder(byCode.map(({ id, code, title }) => [id, `${code} ${title}`]));
    }
    case "urgency": {
      const steps = groups.map(({ key }) => key).filter(isUrgency);
      return inOrder(steps.toSorted((a, b) => urgencyRank(b) - urgencyRank(a)).map((key) => [key, URGENCY_NAMES[key]]));
    }
    case "standing":
      return inOrder(STANDINGS.filter(isStandingKind).map((kind) => [kind, STANDING_NAMES[kind]]));
    case "attachment":
    case "unread": {
      const [yes, no] = YES_NO[by] ?? ["yes", "no"];
      return inOrder([
        ["yes", yes],
        ["no", no],
      ]);
    }
    default:
      return new Map();
  }
}
