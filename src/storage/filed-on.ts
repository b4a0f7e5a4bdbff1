import type { EmailAddress } from "../core/kernel/email-address";
import {
  type ConversationId,
  type MemberId,
  type MessageId,
  type RecordId,
  type TrayId,
  trustedId,
} from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Attachment } from "../core/message/mail-message";
import type { Filing } from "../core/records/filing-means";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at, atOrNull } from "./rows";
import type { Recipients } from "./store-message";
import type { TrayGrant } from "./trays";

/** A conversation that is filed on a record: when, by whom (null: by the tray itself) and how. */
export type FiledThread = Pick<Filing, "means" | "fields"> & {
  readonly id: ConversationId;
  readonly traySlug: string;
  readonly subject: string;
  readonly who: string;
  readonly newestAt: Instant;
  readonly messageCount: number;
  readonly filedAt: Instant | null;
  readonly filedBy: MemberId | null;
  readonly rule: string | null;
};

// In whichever trays she may look into; the newest filing on the record is the one that stands.
const FILED = /* sql */ `
  from conversation as c
    join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
  where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null`;

/** The conversations filed on a record in the trays that the viewer may look into, in order of their newest message. */
export async function filedThreads(db: Database, grant: TrayGrant, recordId: RecordId): Promise<FiledThread[]> {
  const found = await knexOf(db).raw<{
    rows: {
      id: string;
      tray_slug: string;
      subject: string;
      who: string;
      last_message_at: Date;
      message_count: number;
      at: Date | null;
      by_member_id: string | null;
      rule: string | null;
      effect: Filing | null;
    }[];
  }>(
    /* sql */ `
    with filed as materialized (
      select c.id, (select slug from tray where tray.id = c.tray_id) as tray_slug, c.subject, c.who, c.last_message_at,
        c.message_count ${FILED})
    select filed.*, entry.at, entry.by_member_id, entry.rule->>'name' as rule, entry.effect
    from filed left join lateral (
      select journal.at, by_member_id, rule, effect from journal
      where conversation_id = filed.id and kind = 'filed' and effect->>'recordId' = :recordText and undoes is null
      order by version desc limit 1
    ) as entry on true
    order by filed.last_message_at, filed.id`,
    { memberId: grant.memberId, recordId, recordText: recordId },
  );
  return found.rows.map(({ id, subject, who, at: filedAt, by_member_id, rule, effect, ...row }) => ({
    ...{ id: trustedId<ConversationId>(id), subject, who, rule, filedAt: atOrNull(filedAt) },
    ...{ traySlug: row.tray_slug, newestAt: at(row.last_message_at), messageCount: row.message_count },
    filedBy: by_member_id === null ? null : trustedId<MemberId>(by_member_id),
    ...(effect?.means === undefined ? {} : { means: effect.means }),
    ...(effect?.fields === undefined ? {} : { fields: effect.fields }),
  }));
}

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

/** All messages of those conversations, in order of time; what was taken back before it went is not among them. */
export async function messagesOnRecord(db: Database, grant: TrayGrant, recordId: RecordId): Promise<MessageOnRecord[]> {
  const found = await knexOf(db).raw<{ rows: MessageRow[] }>(
    /* sql */ `
    with filed as materialized (select c.id ${FILED})
    select message.id, tray_id, conversation_id, direction, sent_at, message.subject, message.message_id, from_name,
      from_address, recipients, attachments, own_text, rest_text
    from filed join message on message.conversation_id = filed.id
      left join message_text on message_text.message_id = message.id
    where delivery is distinct from 'withdrawn'
    order by sent_at, message.id`,
    { memberId: grant.memberId, recordId },
  );
  return found.rows.map((row) => ({
    ...{ direction: row.direction, subject: row.subject, messageId: row.message_id, fromName: row.from_name },
    ...{ recipients: row.recipients, attachments: row.attachments },
    ...{ ownText: row.own_text ?? "", restText: row.rest_text ?? "" },
    id: trustedId<MessageId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    sentAt: at(row.sent_at),
    fromAddress: row.from_address as EmailAddress,
  }));
}

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
  const found = await knexOf(db).raw<{
    rows: { conversation_id: string; by_member_id: string | null; at: Date; text: string }[];
  }>(
    /* sql */ `
    select note.conversation_id, note.by_member_id, note.at, coalesce((
      select edit.effect->>'text' from journal as edit
      where edit.conversation_id = note.conversation_id and edit.kind = 'note-edited'
        and edit.effect->>'entryId' = note.id::text order by edit.version desc limit 1), note.effect->>'text') as text
    from journal as note
    where note.conversation_id = any(:ids) and note.kind = 'noted' and note.undoes is null
      and not exists (select 1 from journal as undo where undo.undoes = note.id)
    order by note.at, note.id`,
    { ids: [...ids] } as never,
  );
  return found.rows.map(({ conversation_id, by_member_id, at: when, text }) => ({
    conversationId: trustedId<ConversationId>(conversation_id),
    by: by_member_id === null ? null : trustedId<MemberId>(by_member_id),
    ...{ at: at(when), text },
  }));
}

const MOST_PEOPLE = 12;

/** The people outside who wrote in what is filed on a record, whoever wrote most first. */
export async function correspondentsOf(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
): Promise<{ readonly name: string; readonly address: EmailAddress; readonly count: number }[]> {
  const found = await knexOf(db).raw<{ rows: { name: string; address: string; count: number }[] }>(
    /* sql */ `
    with filed as materialized (select c.id ${FILED})
    select from_address as address, (array_agg(from_name order by sent_at desc))[1] as name, count(*)::int as count
    from filed join message on message.conversation_id = filed.id
    where direction = 'in' and kind = 'person' and from_address <> ''
    group by from_address order by count(*) desc, from_address limit ${MOST_PEOPLE}`,
    { memberId: grant.memberId, recordId },
  );
  return found.rows.map(({ name, address, count }) => ({ name, address: address as EmailAddress, count }));
}

/** A document that came or went with a message on a record. */
export type DocumentOnRecord = Pick<Attachment, "index" | "fileName" | "contentType" | "size" | "sha256"> & {
  readonly messageId: MessageId;
  readonly traySlug: string;
  readonly at: Instant;
  readonly who: string;
  readonly direction: "in" | "out";
};

const MOST_DOCUMENTS = 1_000;

/** The documents on a record, the newest first; what stands in the text of a message is none. */
export async function documentsOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
): Promise<DocumentOnRecord[]> {
  type Row = {
    id: string;
    tray_slug: string;
    sent_at: Date;
    who: string;
    direction: "in" | "out";
    attachment: Attachment;
  };
  const found = await knexOf(db).raw<{ rows: Row[] }>(
    /* sql */ `
    with filed as materialized (select c.id ${FILED})
    select message.id, (select slug from tray where tray.id = message.tray_id) as tray_slug, sent_at,
      coalesce(nullif(from_name, ''), from_address) as who, direction, attachment
    from filed join message on message.conversation_id = filed.id
      cross join lateral jsonb_array_elements(attachments) as attachment
    where delivery is distinct from 'withdrawn' and not (attachment->>'inline')::boolean
    order by sent_at desc, message.id limit ${MOST_DOCUMENTS}`,
    { memberId: grant.memberId, recordId },
  );
  return found.rows.map(({ id, tray_slug, sent_at, who, direction, attachment }) => {
    const { index, fileName, contentType, size, sha256 } = attachment;
    return {
      ...{ messageId: trustedId<MessageId>(id), traySlug: tray_slug, at: at(sent_at), who, direction },
      ...{ index, fileName, contentType, size, sha256 },
    };
  });
}
