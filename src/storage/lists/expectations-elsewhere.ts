import { domainOf, type EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import type { Asked } from "../../core/threading/possible-parent";
import { SEEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";

/** A conversation of a tray that waits for somebody, with what we asked in it. */
export type ExpectationElsewhere = Asked & { readonly conversationId: ConversationId };

const MOST = 20;

/** The conversations of a tray, but for one, in which an answer of one of these addresses is awaited, the newest first. */
export async function expectationsElsewhere(
  db: Database,
  grant: TrayGrant,
  but: ConversationId,
  addresses: readonly EmailAddress[],
): Promise<ExpectationElsewhere[]> {
  const found = await ask<{ id: string; subject: string; own_text: string; record_codes: string[] }>(
    db,
    /* sql */ `
    select distinct on (c.last_message_at, c.id) c.id, c.subject, coalesce(message_text.own_text, '') as own_text,
      array(select record.code from record where record.id = any(c.record_ids) and ${SEEN}) as record_codes
    from conversation as c join journal on journal.conversation_id = c.id and journal.kind = 'expected'
      left join message_text on message_text.message_id = cast(journal.effect ->> 'messageId' as uuid)
    where c.tray_id = :trayId and c.standing = 'waiting' and c.joined_to is null and c.id <> :but
      and (jsonb_exists_any(journal.effect -> 'from', cast(:addresses as text[]))
        or journal.effect ->> 'organisation' = any(cast(:domains as text[])))
    order by c.last_message_at desc, c.id limit ${MOST}`,
    {
      trayId: grant.tray.id,
      memberId: grant.memberId,
      but,
      addresses: [...addresses],
      domains: addresses.map(domainOf),
    },
  );
  return found.map((row) => ({
    conversationId: trustedId<ConversationId>(row.id),
    subject: row.subject,
    ownText: row.own_text,
    recordCodes: row.record_codes,
  }));
}
