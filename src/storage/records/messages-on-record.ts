import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type ConversationId,
  type MemberId,
  type MessageId,
  type RecordId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Attachment } from "../../core/message/mail-message";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at } from "../base/rows";
import { MESSAGES } from "../facts/record-filter";
import type { Recipients } from "../facts/store-message";

/** A message of a conversation that is filed on a record, without its bytes. */
export type MessageOnRecord = {
  readonly id: MessageId;
  readonly trayId: TrayId;
  readonly conversationId: ConversationId;
  readonly direction: "in" | "out";
  readonly sentAt: Instant;
  readonly subject: string;
  readonly messageId: string | null;
  readonly fromName: string;
  readonly fromAddress: EmailAddress;
  readonly recipients: Recipients;
  readonly attachments: readonly Attachment[];
  readonly ownText: string;
  readonly restText: string;
};

type MessageRow = {
  id: string;
  tray_id: string;
  conversation_id: string;
  direction: "in" | "out";
  sent_at: Date;
  subject: string;
  message_id: string | null;
  from_name: string;
  from_address: string;
  recipients: Recipients;
  attachments: Attachment[];
  own_text: string | null;
  rest_text: string | null;
};

/** All messages of those conversations and those filed by themselves, in order of time; what was taken back before it went is not among them. */
export async function messagesOnRecord(db: Database, grant: TrayGrant, recordId: RecordId): Promise<MessageOnRecord[]> {
  const found = await ask<MessageRow>(db, `with ${MESSAGES} ${WHOLE_MESSAGES} from on_record as message ${IN_ORDER}`, {
    memberId: grant.memberId,
    recordId,
  });
  return found.map(messageOf);
}

/** All messages of some conversations of a tray, in the same way. */
export async function messagesOfConversations(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<MessageOnRecord[]> {
  const found = await ask<MessageRow>(
    db,
    `with message as (select * from message where conversation_id = any(:ids) and tray_id = :trayId)
    ${WHOLE_MESSAGES} from message ${IN_ORDER}`,
    { ids: [...ids], trayId: grant.tray.id },
  );
  return found.map(messageOf);
}

const WHOLE_MESSAGES = /* sql */ `
  select message.id, tray_id, conversation_id, direction, sent_at, message.subject, message.message_id, from_name,
    from_address, recipients, attachments, own_text, rest_text`;
const IN_ORDER = /* sql */ `left join message_text on message_text.message_id = message.id
  where delivery is distinct from 'withdrawn' order by sent_at, message.id`;

const messageOf = (row: MessageRow): MessageOnRecord => ({
  direction: row.direction,
  subject: row.subject,
  messageId: row.message_id,
  fromName: row.from_name,
  recipients: row.recipients,
  attachments: row.attachments,
  ownText: row.own_text ?? "",
  restText: row.rest_text ?? "",
  id: trustedId<MessageId>(row.id),
  trayId: trustedId<TrayId>(row.tray_id),
  conversationId: trustedId<ConversationId>(row.conversation_id),
  sentAt: at(row.sent_at),
  fromAddress: row.from_address as EmailAddress,
});

/** The notes of conversations as they stand now, in order of time. */
export async function notesOf(
  db: Database,
  ids: readonly ConversationId[],
): Promise<
  {
    readonly conversationId: ConversationId;
    readonly by: MemberId | null;
    readonly at: Instant;
    readonly text: string;
  }[]
> {
  const found = await ask<{ conversation_id: string; by_member_id: string | null; at: Date; text: string }>(
    db,
    /* sql */ `
    select note.conversation_id, note.by_member_id, note.at, coalesce((
      select edit.effect->>'text' from journal as edit
      where edit.conversation_id = note.conversation_id and edit.kind = 'note-edited'
        and edit.effect->>'entryId' = note.id::text order by edit.version desc limit 1), note.effect->>'text') as text
    from journal as note
    where note.conversation_id = any(:ids) and note.kind = 'noted' and note.undoes is null
      and not exists (select 1 from journal as undo where undo.undoes = note.id)
    order by note.at, note.id`,
    { ids: [...ids] },
  );
  return found.map(({ conversation_id, by_member_id, at: when, text }) => ({
    conversationId: trustedId<ConversationId>(conversation_id),
    by: by_member_id === null ? null : trustedId<MemberId>(by_member_id),
    at: at(when),
    text,
  }));
}

const MOST_PEOPLE = 12;

/** The people outside who wrote in what is filed on a record, whoever wrote most first. */
export async function correspondentsOf(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
): Promise<{ readonly name: string; readonly address: EmailAddress; readonly count: number }[]> {
  const found = await ask<{ name: string; address: string; count: number }>(
    db,
    /* sql */ `
    with ${MESSAGES}
    select from_address as address, (array_agg(from_name order by sent_at desc))[1] as name, count(*)::int as count
    from on_record where direction = 'in' and kind = 'person' and from_address <> ''
    group by from_address order by count(*) desc, from_address limit ${MOST_PEOPLE}`,
    { memberId: grant.memberId, recordId },
  );
  return found.map(({ name, address, count }) => ({ name, address: address as EmailAddress, count }));
}
