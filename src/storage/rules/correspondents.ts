import type { EmailAddress } from "../../core/kernel/email-address";
import { type CategoryId, type ContactId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Correspondent } from "../../core/rules/ruled-message";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";

/** What a tray knows of those whom some addresses belong to, but for who is a colleague; each address is in it. */
export async function correspondentsOf(
  db: Database,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
): Promise<ReadonlyMap<EmailAddress, Omit<Correspondent, "isColleague">>> {
  const found = await ask<{
    address: EmailAddress;
    contact_id: string | null;
    organisation: string | null;
    category_ids: string[] | null;
    is_known: boolean;
  }>(
    db,
    /* sql */ `
    select asked.address, contact.id as contact_id, contact.organisation, contact.category_ids,
      contact.id is not null or exists (select 1 from conversation as c
        where c.tray_id = :trayId and c.who_address = asked.address and c.joined_to is null) as is_known
    from unnest(cast(:addresses as text[])) as asked(address)
      left join contact_address on contact_address.tray_id = :trayId and contact_address.address = asked.address
      left join contact on contact.id = contact_id and removed_at is null`,
    { trayId, addresses: [...addresses] },
  );
  return new Map(
    found.map((row) => [
      row.address,
      {
        contactId: row.contact_id === null ? null : trustedId<ContactId>(row.contact_id),
        organisation: row.organisation ?? "",
        categoryIds: (row.category_ids ?? []).map((id) => trustedId<CategoryId>(id)),
        isKnown: row.is_known,
      },
    ]),
  );
}
