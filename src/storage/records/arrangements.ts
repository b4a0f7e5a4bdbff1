import type { MemberId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Arrangement } from "../../core/records/arrangement";
import type { Role } from "../access/members";
import type { Tray, TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** A tree as a member has it, its version 0 while she has none of her own. */
export type KeptArrangement = { readonly tree: Arrangement; readonly version: number };

/** A member's own tree; null when she has none. */
export async function arrangementOf(db: Database, memberId: MemberId): Promise<KeptArrangement | null> {
  const row = await knexOf(db)("arrangement").first("tree", "version").where({ member_id: memberId });
  return row === undefined ? null : { tree: row.tree, version: row.version };
}

/** Keeps a member's tree in place of the one of a version (0 for none); false when hers is another one since. */
export async function saveArrangement(
  trx: Transaction,
  memberId: MemberId,
  tree: Arrangement,
  version: number,
): Promise<boolean> {
  const builder = knexOf(trx);
  const kept = { tree: JSON.stringify(tree), version: version + 1 };
  if (version > 0) return (await builder("arrangement").where({ member_id: memberId, version }).update(kept)) > 0;
  const added = await builder("arrangement")
    .insert({ member_id: memberId, ...kept })
    .onConflict()
    .ignore()
    .returning("member_id");
  return added.length > 0;
}

/** With what those of a role begin in a tray who have no tree of their own; null when with nothing. */
export async function startingArrangement(
  db: Database,
  { id }: Pick<Tray, "id">,
  role: Role,
): Promise<Arrangement | null> {
  const row = await knexOf(db)("arrangement_start").first("tree").where({ tray_id: id, role });
  return row === undefined ? null : row.tree;
}

/** Has those of a role begin with a tree. */
export async function saveStartingArrangement(
  trx: Transaction,
  { tray, memberId }: TrayGrant,
  role: Role,
  tree: Arrangement,
  now: Instant,
): Promise<void> {
  await knexOf(trx)("arrangement_start")
    .insert({ tray_id: tray.id, role, tree: JSON.stringify(tree), by_member_id: memberId, at: param(now) })
    .onConflict(["tray_id", "role"])
    .merge();
}
