import type { EmailAddress } from "../../core/kernel/email-address";
import { type MemberId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

/** A sender whose mail goes straight to Junk, and who said so. */
export type JunkSender = { readonly address: EmailAddress; readonly by: MemberId; readonly at: Instant };

/** The junk senders of a tray, by address. */
export async function junkSendersOf(db: Database, grant: TrayGrant): Promise<JunkSender[]> {
  const rows: { address: string; by_member_id: string; at: Date }[] = await knexOf(db)("junk_sender")
    .select("address", "by_member_id", "at")
    .where("tray_id", grant.tray.id)
    .orderBy("address");
  return rows.map((row) => ({
    address: row.address as EmailAddress,
    by: trustedId<MemberId>(row.by_member_id),
    at: at(row.at),
  }));
}

/** The junk senders of every tray. */
export async function allJunkSenders(db: Database): Promise<{ trayId: TrayId; address: EmailAddress }[]> {
  const rows: { tray_id: string; address: string }[] = await knexOf(db)("junk_sender").select("tray_id", "address");
  return rows.map((row) => ({ trayId: trustedId<TrayId>(row.tray_id), address: row.address as EmailAddress }));
}

/** Sends a sender's mail straight to Junk from now on. */
export async function addJunkSender(
  db: Database,
  grant: TrayGrant,
  address: EmailAddress,
  now: Instant,
): Promise<void> {
  await knexOf(db)("junk_sender")
    .insert({ tray_id: grant.tray.id, address, by_member_id: grant.memberId, at: param(now) })
    .onConflict(["tray_id", "address"])
    .ignore();
}

/** Lets a sender's mail come to where all mail comes again. */
export async function removeJunkSender(db: Database, grant: TrayGrant, address: EmailAddress): Promise<void> {
  await knexOf(db)("junk_sender").where({ tray_id: grant.tray.id, address }).delete();
}
