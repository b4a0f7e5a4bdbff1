import type { EmailAddress } from "../../core/kernel/email-address";
import type { TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** Whether a tray shows pictures from elsewhere in mail of this sender. */
export async function showsRemoteOf(db: Database, trayId: TrayId, address: EmailAddress): Promise<boolean> {
  return (await knexOf(db)("remote_content_sender").first("address").where({ tray_id: trayId, address })) !== undefined;
}

/** Has a tray show them from now on. */
export async function showRemoteOf(db: Database, grant: TrayGrant, address: EmailAddress, at: Instant): Promise<void> {
  await knexOf(db)("remote_content_sender")
    .insert({ tray_id: grant.tray.id, address, by_member_id: grant.memberId, at: param(at) })
    .onConflict()
    .ignore();
}
