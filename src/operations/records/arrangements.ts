import type { MemberId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { type Arrangement, arrangedIds, copied, isSound, knownOf } from "../../core/records/arrangement";
import { membersOfTray, type Role, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import {
  arrangementOf,
  type FilingRecord,
  recordsByIds,
  saveArrangement,
  saveStartingArrangement,
  startingArrangement,
} from "../../storage/records/index";
import type { Deps, Within } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { filedInTraysOf } from "./filed-in-trays";

/** A member's own tree with the records in it that she may know of, and how many conversations are open on each. */
export type OwnArrangement = {
  readonly tree: Arrangement;
  readonly version: number;
  /** She has none of her own yet, and sees what she was handed. */
  readonly isHanded: boolean;
  readonly records: readonly (FilingRecord & { readonly open: number })[];
};

/** A member's own tree; what those of her role begin with while she has none. */
export async function getArrangement(deps: Deps, grant: TrayGrant): Promise<OwnArrangement> {
  const { tree, version, isHanded } = await treeOf(deps, grant);
  const records = await recordsByIds(deps.db, grant, arrangedIds(tree));
  const counts = records.length === 0 ? null : await filedInTraysOf(deps, grant);
  const known = new Set(records.map(({ id }) => id));
  return {
    tree: knownOf(tree, (id) => known.has(id)),
    version,
    isHanded,
    records: records.map((record) => ({ ...record, open: counts?.get(record.id)?.open ?? 0 })),
  };
}

async function treeOf(deps: Deps, grant: TrayGrant) {
  const own = await arrangementOf(deps.db, grant.memberId);
  if (own !== null) return { ...own, isHanded: false };
  const handed = await startingArrangement(deps.db, grant.tray, grant.role);
  return { tree: handed ?? [], version: 0, isHanded: handed !== null };
}

/** The records of her tree for a picker: in its order, those whose own name or title has the text. */
export async function arrangedRecords(
  deps: Deps,
  grant: TrayGrant,
  text: string,
): Promise<readonly (FilingRecord & { readonly name: string })[]> {
  const { tree } = await treeOf(deps, grant);
  const ids = arrangedIds(tree);
  if (ids.length === 0) return [];
  const records = await recordsByIds(deps.db, grant, ids);
  const names = new Map<string, string>();
  const walk = (items: Arrangement) => {
    for (const item of items) {
      if (item.kind === "folder") walk(item.items);
      else if (item.name !== "") names.set(item.recordId, item.name);
    }
  };
  walk(tree);
  const wanted = text.toLowerCase();
  return ids.flatMap((id) => {
    const record = records.find((one) => one.id === id);
    if (record === undefined) return [];
    const name = names.get(id) ?? "";
    const isWanted = `${name} ${record.code} ${record.title}`.toLowerCase().includes(wanted);
    return isWanted ? [{ ...record, name }] : [];
  });
}

/** Keeps her tree in place of the one of the version that she saw. */
export async function editArrangement(
  deps: Deps,
  grant: TrayGrant,
  tree: Arrangement,
  version: number,
): Promise<Result<number, Refusal>> {
  if (!isSound(tree)) return err({ kind: "too-arranged" });
  const known = new Set((await recordsByIds(deps.db, grant, arrangedIds(tree))).map(({ id }) => id));
  const kept = knownOf(tree, (id) => known.has(id));
  return inTransactionUnlessRefused<number, Refusal>(deps.db, async (trx) => {
    const isKept = await saveArrangement(trx, grant.memberId, kept, version);
    return isKept ? ok(version + 1) : err({ kind: "changed-since" });
  });
}

/** To whom a lead hands her tree: those of a role who have none yet, also those who come later; or some members. */
export type HandedTo = { readonly role: Role } | { readonly memberIds: readonly MemberId[] };

/**
 * Hands her tree out: to those of a role as what they begin with; to members into their own trees, in a folder of that name
 * where they have one. What somebody may not know of she does not see in it. For those who lead.
 */
export async function handOutArrangement(
  deps: Deps,
  grant: TrayGrant,
  to: HandedTo,
  name: string,
): Promise<Result<number, Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const { tree } = await treeOf(deps, grant);
  if (tree.length === 0) return err({ kind: "nothing-chosen" });
  return inTransactionUnlessRefused<number, Refusal>(deps.db, async (trx) => {
    if ("role" in to) {
      await saveStartingArrangement(trx, grant, to.role, tree, deps.now());
      return ok(0);
    }
    const members = await membersOfTray(trx, grant.tray.id);
    const known = to.memberIds.filter((id) => id !== grant.memberId && members.some((member) => member.id === id));
    if (known.length === 0) return err({ kind: "nothing-chosen" });
    for (const memberId of known) {
      const refusal = await handTo(trx, deps, memberId, name, tree);
      if (refusal !== null) return err(refusal);
    }
    return ok(known.length);
  });
}

async function handTo(
  trx: Transaction,
  deps: Within,
  memberId: MemberId,
  name: string,
  tree: Arrangement,
): Promise<Refusal | null> {
  const theirs = await arrangementOf(trx, memberId);
  const folder = { kind: "folder", key: deps.newId(), name, items: copied(tree, deps.newId) } as const;
  const next = theirs === null || theirs.tree.length === 0 ? tree : [...theirs.tree, folder];
  // One that would be too much for somebody is not forced on her.
  if (!isSound(next)) return { kind: "too-arranged" };
  const isKept = await saveArrangement(trx, memberId, next, theirs?.version ?? 0);
  return isKept ? null : { kind: "changed-since" };
}
