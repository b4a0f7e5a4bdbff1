import { type MemberId, type TrayId, trustedId, type WatchId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { WatchKind } from "../../core/notifications/events";
import type { Watch } from "../../core/notifications/watches";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

export type KeptWatch = Watch & { readonly id: WatchId; readonly trayId: TrayId };

type Row = { id: string; member_id: string; tray_id: string; kind: WatchKind; value: string };

function watchOf(row: Row): KeptWatch {
  return {
    id: trustedId<WatchId>(row.id),
    memberId: trustedId<MemberId>(row.member_id),
    trayId: trustedId<TrayId>(row.tray_id),
    kind: row.kind,
    value: row.value,
  };
}

/** What everybody who may look watches, in all trays. */
export async function allWatches(db: Database): Promise<KeptWatch[]> {
  const rows: Row[] = await knexOf(db)("watch")
    .select("watch.*")
    .join("member", "member.id", "watch.member_id")
    .join("tray_member", (on) =>
      on.on("tray_member.member_id", "watch.member_id").andOn("tray_member.tray_id", "watch.tray_id"),
    )
    .whereNull("member.disabled_at");
  return rows.map(watchOf);
}

/** What a member watches in a tray, in the order in which she began to. */
export async function watchesOf(db: Database, memberId: MemberId, trayId: TrayId): Promise<KeptWatch[]> {
  const rows: Row[] = await knexOf(db)("watch")
    .where({ member_id: memberId, tray_id: trayId })
    .orderBy("created_at")
    .orderBy("id");
  return rows.map(watchOf);
}

/** Begins to watch; false when she does already. */
export async function addWatch(db: Database, watch: KeptWatch, now: Instant): Promise<boolean> {
  const { id, memberId, trayId, kind, value } = watch;
  const added = await knexOf(db)("watch")
    .insert({ id, member_id: memberId, tray_id: trayId, kind, value, created_at: param(now) })
    .onConflict(["member_id", "tray_id", "kind", "value"])
    .ignore()
    .returning("id");
  return added.length === 1;
}

/** Stops watching; false when she did not. */
export async function removeWatch(db: Database, memberId: MemberId, trayId: TrayId, id: WatchId): Promise<boolean> {
  return (await knexOf(db)("watch").where({ id, member_id: memberId, tray_id: trayId }).delete()) === 1;
}
