import { inCharge, timeOffAt } from "../../core/cover/covering";
import type { Decision } from "../../core/deciding/decision";
import { type Need, needsOf } from "../../core/deciding/plan-decision";
import { dayInWords } from "../../core/time/day-words";
import {
  allMembers,
  groupsOf,
  membersOfTray,
  membersWithRoles,
  type TrayGrant,
  timesOffNow,
} from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import { categoriesOf, lockCategoriesForShare } from "../../storage/facts/index";
import { lockRecordForShare, recordsByIds } from "../../storage/records/index";
import type { Asking } from "../base/deps";
import { loadsOfThere } from "../changes/loads-of-there";
import type { Refusal } from "../refusals/refusal";

type NeedOf<Kind extends Need["kind"]> = Extract<Need, { readonly kind: Kind }>;

/** How a need is held for the time of a decision, where somebody could change it meanwhile, and why it may not be there. */
type Met<Kind extends Need["kind"]> = {
  readonly lock?: (trx: Transaction, need: NeedOf<Kind>) => Promise<void>;
  readonly refusal: (deps: Asking, grant: TrayGrant, need: NeedOf<Kind>) => Promise<Refusal | null> | Refusal | null;
};

const NEEDS: { readonly [Kind in Need["kind"]]: Met<Kind> } = {
  member: {
    refusal: async (deps, grant, { id }) => {
      const members = await membersOfTray(deps.db, grant.tray.id);
      return members.some((member) => member.id === id) ? null : { kind: "no-such", what: "member" };
    },
  },
  owner: { refusal: ownerRefusal },
  group: {
    refusal: async (deps, grant, { id }) => {
      const group = (await groupsOf(deps.db, grant)).find((one) => one.id === id);
      if (group === undefined) return { kind: "no-such", what: "group" };
      return (await loadsOfThere(deps, grant, group)).size === 0 ? { kind: "nobody-there", name: group.name } : null;
    },
  },
  told: {
    refusal: async (deps, grant, { ids }) => {
      if (ids.length === 0) return null;
      const members = await membersOfTray(deps.db, grant.tray.id);
      const outside = ids.filter((id) => !members.some((member) => member.id === id));
      if (outside.length === 0) return null;
      const names = (await allMembers(deps.db)).filter(({ id }) => outside.includes(id)).map(({ name }) => name);
      return { kind: "no-access", names };
    },
  },
  category: {
    lock: lockCategoriesForShare,
    refusal: async (deps, grant, { id, toGive }) => {
      const category = (await categoriesOf(deps.db, grant.tray.id)).find((one) => one.id === id);
      if (category === undefined) return { kind: "no-such", what: "category" };
      return toGive && category.retired ? { kind: "category-retired", name: category.name } : null;
    },
  },
  record: {
    lock: async (trx, { id, toFile }) => {
      if (toFile) await lockRecordForShare(trx, id);
    },
    refusal: async (deps, grant, { id, toFile }) => {
      const [record] = await recordsByIds(deps.db, grant, [id]);
      if (record === undefined) return { kind: "no-such", what: "record" };
      return toFile && record.closed ? { kind: "record-closed", code: record.code } : null;
    },
  },
  "to-come": { refusal: (deps, _, { at }) => (at === null || at > deps.now() ? null : { kind: "date-is-past" }) },
};

// The table's type ties each entry to its need; an index by a union loses that tie.
const met = <Kind extends Need["kind"]>(need: NeedOf<Kind>) => NEEDS[need.kind as Kind] as Met<Kind>;

/** Keeps what a decision needs as it is until its transaction ends. */
export async function lockNeeds(trx: Transaction, decision: Decision): Promise<void> {
  for (const need of needsOf(decision)) await met(need).lock?.(trx, need);
}

/** Why a decision cannot be about any conversation of a tray; null when it can. */
export async function decisionRefusal(deps: Asking, grant: TrayGrant, decision: Decision): Promise<Refusal | null> {
  for (const need of needsOf(decision)) {
    const refusal = await met(need).refusal(deps, grant, need);
    if (refusal !== null) return refusal;
  }
  return null;
}

async function ownerRefusal(
  deps: Asking,
  grant: TrayGrant,
  { id, evenIfAway }: NeedOf<"owner">,
): Promise<Refusal | null> {
  const now = deps.now();
  const [members, timesOff] = await Promise.all([membersWithRoles(deps.db, grant.tray.id), timesOffNow(deps.db, now)]);
  const owner = members.find((one) => one.id === id);
  if (owner === undefined) return { kind: "no-such", what: "member" };
  if (owner.role === "reader") return { kind: "only-reads", name: owner.name };
  if (evenIfAway) return null;
  const off = timeOffAt(id, now, timesOff);
  if (off === null) return null;
  const cover = inCharge(id, { trayId: grant.tray.id, recordIds: [] }, now, timesOff);
  return {
    kind: "away",
    name: owner.name,
    back: dayInWords(off.until, now, grant.tray.timeZone),
    cover: members.find((one) => one.id === cover)?.name ?? null,
  };
}
