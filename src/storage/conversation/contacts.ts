import type { Contact } from "../../core/contacts/contact";
import type { EmailAddress } from "../../core/kernel/email-address";
import { type CategoryId, type ContactId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

type ContactRow = {
  id: string;
  name: string;
  organisation: string;
  phone: string;
  note: string;
  category_ids: string[];
  addresses: string[] | null;
};

const CONTACT = /* sql */ `contact.id, name, organisation, phone, note, category_ids,
  (select array_agg(address order by position) from contact_address where contact_id = contact.id) as addresses`;

function contactOf(row: ContactRow): Contact {
  return {
    id: trustedId<ContactId>(row.id),
    name: row.name,
    organisation: row.organisation,
    phone: row.phone,
    note: row.note,
    addresses: (row.addresses ?? []) as EmailAddress[],
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
  };
}

const MAX_CONTACTS_LISTED = 500;

/** The contacts of a tray by name: those whose name, organisation or address has the text, with a category where one is given. */
export async function contactsOf(
  db: Database,
  trayId: TrayId,
  { text, categoryId }: { readonly text: string; readonly categoryId: CategoryId | null },
): Promise<Contact[]> {
  const builder = knexOf(db);
  const pattern = `%${text.replace(/[\\%_]/g, "\\$&")}%`;
  const rows: ContactRow[] = await builder("contact")
    .select(builder.raw(CONTACT))
    .where("tray_id", trayId)
    .whereNull("removed_at")
    .where((either) =>
      either
        .whereILike("name", pattern)
        .orWhereILike("organisation", pattern)
        .orWhereExists(
          builder("contact_address")
            .select(builder.raw("1"))
            .whereRaw("contact_id = contact.id")
            .whereILike("address", pattern),
        ),
    )
    .modify((which) => {
      if (categoryId !== null) void which.whereRaw("category_ids @> array[cast(? as uuid)]", [categoryId]);
    })
    .orderByRaw("lower(name), id")
    .limit(MAX_CONTACTS_LISTED);
  return rows.map(contactOf);
}

/** The contacts of a tray with one of these names, in lower case. */
export async function contactsNamed(db: Database, trayId: TrayId, names: readonly string[]): Promise<Contact[]> {
  const builder = knexOf(db);
  const rows: ContactRow[] = await builder("contact")
    .select(builder.raw(CONTACT))
    .where("tray_id", trayId)
    .whereNull("removed_at")
    .whereRaw("lower(name) = any(?)", [[...names]]);
  return rows.map(contactOf);
}

/** These contacts of a tray. */
export async function contactsByIds(db: Database, trayId: TrayId, ids: readonly ContactId[]): Promise<Contact[]> {
  const builder = knexOf(db);
  const rows: ContactRow[] = await builder("contact")
    .select(builder.raw(CONTACT))
    .where("tray_id", trayId)
    .whereNull("removed_at")
    .whereIn("id", ids);
  return rows.map(contactOf);
}

/** The contacts of a tray who have one of these addresses. */
export async function contactsWith(
  db: Database,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
): Promise<Contact[]> {
  const builder = knexOf(db);
  const rows: ContactRow[] = await builder("contact")
    .select(builder.raw(CONTACT))
    .whereNull("removed_at")
    .whereIn(
      "id",
      builder("contact_address").select("contact_id").where("tray_id", trayId).whereIn("address", addresses),
    );
  return rows.map(contactOf);
}

/** A contact of a tray, also one that was removed; null when it has none of this id. */
export async function contactOfId(db: Database, trayId: TrayId, id: ContactId): Promise<Contact | null> {
  const builder = knexOf(db);
  const row: ContactRow | undefined = await builder("contact")
    .first(builder.raw(CONTACT))
    .where({ "contact.id": id, tray_id: trayId });
  return row === undefined ? null : contactOf(row);
}

/** Everybody of a tray's contacts who has a category, with the address that they are written to. */
export async function contactsByCategory(
  db: Database,
  trayId: TrayId,
): Promise<{ readonly name: string; readonly address: EmailAddress; readonly categoryIds: readonly CategoryId[] }[]> {
  const rows = await ask<{ name: string; address: EmailAddress; category_ids: string[] }>(
    db,
    /* sql */ `
    select distinct on (lower(contact.name), contact.id) contact.name, contact_address.address, contact.category_ids
    from contact join contact_address on contact_id = contact.id
    where contact.tray_id = :trayId and removed_at is null and category_ids <> '{}'
    order by lower(contact.name), contact.id, contact_address.position`,
    { trayId },
  );
  return rows.map(({ name, address, category_ids }) => ({
    name,
    address,
    categoryIds: category_ids.map((id) => trustedId<CategoryId>(id)),
  }));
}

/** Holds the contacts of a tray until the transaction ends, so that two who add the same address at once see each other. */
export async function lockContacts(trx: Transaction, trayId: TrayId): Promise<void> {
  await knexOf(trx).raw("select pg_advisory_xact_lock(hashtext('contacts'), hashtext(?))", [trayId]);
}

/** Keeps a contact as it is now; its addresses must be nobody else's. */
export async function saveContact(trx: Transaction, trayId: TrayId, contact: Contact): Promise<void> {
  const builder = knexOf(trx);
  const { id, name, organisation, phone, note, addresses } = contact;
  const columns = { name, organisation, phone, note, category_ids: [...contact.categoryIds], removed_at: null };
  await builder("contact")
    .insert({ id, tray_id: trayId, ...columns })
    .onConflict("id")
    .merge(columns);
  await builder("contact_address").where("contact_id", id).delete();
  await builder("contact_address").insert(
    addresses.map((address, position) => ({ tray_id: trayId, address, contact_id: id, position })),
  );
}

/** Removes a contact; its addresses are free then. False when the tray has none of this id. */
export async function removeContact(trx: Transaction, trayId: TrayId, id: ContactId, at: Instant): Promise<boolean> {
  const builder = knexOf(trx);
  const removed = await builder("contact")
    .where({ id, tray_id: trayId })
    .whereNull("removed_at")
    .update({ removed_at: param(at) });
  if (removed === 1) await builder("contact_address").where("contact_id", id).delete();
  return removed === 1;
}

/** Lets another category stand for one with every contact that has it, or takes it off (null). */
export async function recategoriseContacts(trx: Transaction, from: CategoryId, to: CategoryId | null): Promise<void> {
  await ask(
    trx,
    /* sql */ `
    update contact set category_ids = (
      select coalesce(array_agg(id order by place), '{}') from (
        select id, min(place) as place
        from unnest(array_replace(category_ids, cast(:from as uuid), cast(:to as uuid))) with ordinality as given(id, place)
        where id is not null group by id
      ) as kept)
    where category_ids @> array[cast(:from as uuid)]`,
    { from, to },
  );
}
