import { type PinId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { OPEN_STANDINGS } from "../../core/lists/scope";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { param } from "../base/rows";
import { ABOVE, allAbove } from "../facts/category-tree-sql";

export type PinKind = "record" | "category" | "member" | "view";

/** A place on a member's shelf, or on everybody's. */
export type ShelfPin = {
  readonly id: PinId;
  readonly kind: PinKind;
  /** The id of the record, category, member or saved view. */
  readonly target: string;
  /** What the member calls it; empty is what it is called anyhow. */
  readonly name: string;
  readonly folder: string;
  readonly isForAll: boolean;
};

/** The places on a viewer's shelf: those put on everybody's first, then her own, each in the order set by hand. */
export async function pinsOf(db: Database, grant: TrayGrant): Promise<ShelfPin[]> {
  const rows = await runPrepared<PlaceRow>(
    db,
    /* sql */ `
    select id, kind, target, name, folder, member_id from place
    where tray_id = :trayId and (member_id is null or member_id = :memberId)
    order by member_id is not null, position, id`,
    { trayId: grant.tray.id, memberId: grant.memberId },
  );
  return rows.map((row) => ({
    id: trustedId<PinId>(row.id),
    kind: row.kind,
    target: row.target,
    name: row.name,
    folder: row.folder,
    isForAll: row.member_id === null,
  }));
}

type PlaceRow = {
  id: string;
  kind: PinKind;
  target: string;
  name: string;
  folder: string;
  member_id: string | null;
};

/** Puts a place at the end of a shelf. */
export async function addPin(db: Database, grant: TrayGrant, place: ShelfPin): Promise<void> {
  const builder = knexOf(db);
  const whose = place.isForAll ? null : grant.memberId;
  const last = await builder("place")
    .where({ tray_id: grant.tray.id, member_id: whose })
    .max("position as last")
    .first();
  await builder("place").insert({
    id: place.id,
    tray_id: grant.tray.id,
    member_id: whose,
    kind: place.kind,
    target: place.target,
    name: place.name,
    folder: place.folder,
    position: Number(last?.last ?? -1) + 1,
  });
}

/** The places that a viewer may change: her own, and those of everybody for a lead. */
function changeable(db: Database, grant: TrayGrant) {
  return knexOf(db)("place")
    .where("tray_id", grant.tray.id)
    .where((whose) => {
      whose.where("member_id", grant.memberId);
      if (grant.role === "lead") whose.orWhereNull("member_id");
    });
}

/** Names a place, or puts it into a folder; false when there is none that the viewer may change. */
export async function renamePin(
  db: Database,
  grant: TrayGrant,
  id: PinId,
  words: Pick<ShelfPin, "name" | "folder">,
): Promise<boolean> {
  return (await changeable(db, grant).where("id", id).update(words)) > 0;
}

/** Takes a place off the shelf; false when there is none that the viewer may change. */
export async function removePin(db: Database, grant: TrayGrant, id: PinId): Promise<boolean> {
  return (await changeable(db, grant).where("id", id).delete()) > 0;
}

/** Puts the viewer's own places in this order. */
export async function orderPins(db: Database, grant: TrayGrant, ids: readonly PinId[]): Promise<void> {
  await knexOf(db).raw(
    /* sql */ `
    update place set position = wanted.at
    from unnest(cast(:ids as uuid[])) with ordinality as wanted(id, at)
    where place.id = wanted.id and place.tray_id = :trayId
      and (place.member_id = :memberId or (place.member_id is null and :isLead))`,
    { ids: [...ids], trayId: grant.tray.id, memberId: grant.memberId, isLead: grant.role === "lead" },
  );
}

/** A list with what it was filtered by, under a name. */
export type SavedView = {
  readonly id: string;
  readonly name: string;
  readonly scope: string;
  readonly query: string;
};

/** The views that the viewer has saved in a tray, by name. */
export function savedViewsOf(db: Database, grant: TrayGrant): Promise<SavedView[]> {
  return runPrepared<SavedView>(
    db,
    "select id, name, scope, query from saved_view where tray_id = :trayId and member_id = :memberId order by name",
    { trayId: grant.tray.id, memberId: grant.memberId },
  );
}

/** Saves a view; one of the same name is replaced. */
export async function saveView(db: Database, grant: TrayGrant, view: SavedView, now: Instant): Promise<void> {
  const views = () => knexOf(db)("saved_view").where({ tray_id: grant.tray.id, member_id: grant.memberId });
  const replaced = await views().where("name", view.name).update({ scope: view.scope, query: view.query });
  if (replaced > 0) return;
  await knexOf(db)("saved_view").insert({
    ...view,
    tray_id: grant.tray.id,
    member_id: grant.memberId,
    created_at: param(now),
  });
}

/** Forgets a saved view and takes it off the shelf. */
export async function removeSavedView(db: Database, grant: TrayGrant, id: string): Promise<void> {
  await knexOf(db)("place").where({ tray_id: grant.tray.id, kind: "view", target: id }).delete();
  await knexOf(db)("saved_view").where({ id, tray_id: grant.tray.id, member_id: grant.memberId }).delete();
}

/** How many open conversations of a tray each record, category (with those under it) and owner has, by id. */
export async function openCounts(db: Database, grant: TrayGrant): Promise<ReadonlyMap<string, number>> {
  const found = await ask<{ id: string; count: number }>(
    db,
    /* sql */ `
    with recursive ${ABOVE},
    open as (
      select owner_id, category_ids, record_ids from conversation
      where tray_id = :trayId and standing = any(:standings) and joined_to is null
    )
    select id, count(*)::int as count from (
      select owner_id as id from open where owner_id is not null
      union all select category from open cross join lateral ${allAbove("open.category_ids")} as under
      union all select unnest(record_ids) from open
    ) as one group by id`,
    { trayId: grant.tray.id, standings: [...OPEN_STANDINGS] },
  );
  return new Map(found.map(({ id, count }) => [id, count]));
}
