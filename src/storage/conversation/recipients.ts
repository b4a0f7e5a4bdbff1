import type { EmailAddress, Mailbox } from "../../core/kernel/email-address";
import { type ConversationId, type RecordId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { KnownRecipient } from "../../core/recipients/complete-recipients";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { atOrNull } from "../base/rows";

/**
 * Everybody whom a tray wrote to or heard from, with how often and when last: contacts by their names, then whom its records
 * name, then the rest.
 */
export async function peopleOf(db: Database, trayId: TrayId): Promise<KnownRecipient[]> {
  type Row = {
    address: string;
    name: string;
    organisation: string;
    is_contact: boolean;
    times: number;
    last_at: Date | null;
  };
  const rows = await ask<Row>(
    db,
    /* sql */ `
    with written as (
      select address, count(*)::int as times, max(sent_at) as last_at
      from outgoing_recipient where tray_id = :trayId group by address
    ), wrote as (
      select who_address as address, count(*)::int as times, max(last_message_at) as last_at, max(who) as who
      from conversation where tray_id = :trayId and who_address <> '' and standing not in ('junk', 'bin')
      group by who_address
    ), known as (
      select contact_address.address, contact.name, contact.organisation
      from contact_address join contact on contact.id = contact_id
      where contact_address.tray_id = :trayId and removed_at is null
    ), everybody as (
      select address from written union select address from wrote union select address from known
      union select record_address.address from record_address
        join record on record.id = record_id where record.closed_at is null
          and record.access_members is null and record.access_groups is null
    )
    select everybody.address, coalesce(nullif(known.name, ''), nullif(wrote.who, everybody.address), '') as name,
      coalesce(known.organisation, '') as organisation, known.address is not null as is_contact,
      coalesce(written.times, 0) + coalesce(wrote.times, 0) as times, greatest(written.last_at, wrote.last_at) as last_at
    from everybody left join written using (address) left join wrote using (address) left join known using (address)`,
    { trayId },
  );
  return rows.map((row) => ({
    address: row.address as EmailAddress,
    name: row.name,
    organisation: row.organisation,
    kind: row.is_contact ? "contact" : "correspondent",
    times: row.times,
    lastAt: atOrNull(row.last_at),
  }));
}

// Older ones say little about who belongs together today.
const LOOKED_AT = 200;

/** How often others were written to together with some people, in the newest messages to these. */
export async function writtenTogetherWith(
  db: Database,
  trayId: TrayId,
  addresses: readonly EmailAddress[],
): Promise<ReadonlyMap<EmailAddress, number>> {
  if (addresses.length === 0) return new Map();
  const rows = await ask<{ address: string; times: number }>(
    db,
    /* sql */ `
    select other.address, count(*)::int as times
    from (select message_id from outgoing_recipient where tray_id = :trayId and address = any(:addresses)
      order by sent_at desc limit :most) as sent
    join outgoing_recipient as other using (message_id)
    where other.address <> all(:addresses) group by other.address`,
    { trayId, addresses: [...addresses], most: LOOKED_AT },
  );
  return new Map(rows.map(({ address, times }) => [address as EmailAddress, times]));
}

/** Whom the newest message of a conversation was from and went to. */
export async function peopleOfNewest(db: Database, id: ConversationId): Promise<Mailbox[]> {
  const [row] = await ask<{
    from_name: string;
    from_address: EmailAddress;
    recipients: { readonly to: readonly Mailbox[]; readonly cc: readonly Mailbox[] };
  }>(
    db,
    /* sql */ `
    select from_name, from_address, recipients from message
    where conversation_id = :id and kind = 'person' order by sent_at desc, id desc limit 1`,
    { id },
  );
  if (row === undefined) return [];
  const { to, cc } = row.recipients;
  return [{ name: row.from_name, address: row.from_address }, ...to, ...cc];
}

/** Which of some records have to do with one of some addresses: that they name, or that a letter filed there is from. */
export async function recordsOfPeople(
  db: Database,
  trayId: TrayId,
  ids: readonly RecordId[],
  addresses: readonly EmailAddress[],
): Promise<ReadonlySet<RecordId>> {
  const rows = await ask<{ id: string }>(
    db,
    /* sql */ `
    select record_id as id from record_address where record_id = any(:ids) and address = any(:addresses)
    union select record_id from conversation as c, unnest(c.record_ids) as record_id
    where c.tray_id = :trayId and c.who_address = any(:addresses) and record_id = any(:ids)`,
    { trayId, ids: [...ids], addresses: [...addresses] },
  );
  return new Set(rows.map(({ id }) => trustedId<RecordId>(id)));
}
