import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, type MessageId, type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at } from "../base/rows";

/** When somebody outside wrote last in a conversation; null where nobody did. */
export async function theyWroteLastAt(db: Database, id: ConversationId): Promise<Instant | null> {
  const [row] = await knexOf(db)("message")
    .where({ conversation_id: id, direction: "in", kind: "person" })
    .max<{ at: Date | null }[]>("received_at as at");
  return row?.at == null ? null : at(row.at);
}

/** The newest letter that somebody outside wrote to a tray; null for none. */
export async function newestFrom(
  db: Database,
  trayId: TrayId,
  address: EmailAddress,
): Promise<{ readonly id: MessageId; readonly name: string } | null> {
  const [row] = await ask<{ id: string; from_name: string }>(
    db,
    /* sql */ `
    select m.id, m.from_name from conversation as c join message as m on m.conversation_id = c.id
    where c.tray_id = :trayId and c.who_address = :address and m.from_address = :address
      and m.direction = 'in' and m.kind = 'person'
    order by c.last_message_at desc, m.received_at desc limit 1`,
    { trayId, address },
  );
  return row === undefined ? null : { id: trustedId<MessageId>(row.id), name: row.from_name };
}
