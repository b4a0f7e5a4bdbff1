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
import type { FieldValues } from "../core/records/filing-field";
import type { Filing, FilingMeans } from "../core/records/filing-means";
import type { Query } from "../core/search/query";
import type { StandingKind } from "../core/standing/standing";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { SEEN } from "./record-access";
import { at, atOrNull } from "./rows";
import { tsqueryText } from "./search-messages";
import type { Recipients } from "./store-message";
import type { TrayGrant } from "./trays";

/** A conversation that is filed on a record: when, by whom (null: by the tray itself) and how. */
export type FiledThread = Pick<Filing, "means" | "fields" | "earlier"> & {
  readonly id: ConversationId;
  readonly traySlug: string;
  readonly subject: string;
  readonly who: string;
  readonly newestAt: Instant;
  readonly messageCount: number;
  readonly filedAt: Instant | null;
  readonly filedBy: MemberId | null;
  readonly rule: string | null;
  readonly standing: StandingKind;
};

// In whichever trays she may look into; the newest filing on the record is the one that stands.
const FILED = /* sql */ `
  from conversation as c
    join tray_member on tray_member.tray_id = c.tray_id and tray_member.member_id = :memberId
  where c.record_ids @> array[cast(:recordId as uuid)] and c.joined_to is null`;

// Its messages: those of the conversations on it, and those that are filed by themselves.
const MESSAGES = /* sql */ `
  filed as materialized (select c.id ${FILED}),
  alone as materialized (
    select part.message_id as id, part.attachment as which from filed_part as part
      join message on message.id = part.message_id
      join tray_member on tray_member.tray_id = message.tray_id and tray_member.member_id = :memberId
    where part.record_id = :recordId and message.conversation_id not in (select id from filed)
  ),
  on_record as (
    select message.* from filed join message on message.conversation_id = filed.id
    union all
    select message.* from alone join message on message.id = alone.id where which = -1
  )`;

type ThreadRow = {
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
  fields: FieldValues | null;
  standing: StandingKind;
};

const ABOUT_THREAD = /* sql */ `c.id, (select slug from tray where tray.id = c.tray_id) as tray_slug, c.subject, c.who,
  c.last_message_at, c.message_count, c.standing`;
// How a conversation came to be on a record: the newest filing stands, with the particulars that it was given since.
const entryOn = (recordId: string) => /* sql */ `
  left join lateral (
    select journal.at, by_member_id, rule, effect, version from journal
    where conversation_id = filed.id and kind = 'filed' and effect->>'recordId' = ${recordId} and undoes is null
    order by version desc limit 1
  ) as entry on true left join lateral (
    select effect->'fields' as fields from journal
    where conversation_id = filed.id and kind = 'particulars-set' and effect->>'recordId' = ${recordId}
      and undoes is null and version > entry.version
      and not exists (select 1 from journal as undo where undo.undoes = journal.id)
    order by version desc limit 1
  ) as since on true`;
const ENTRY = /* sql */ `entry.at, entry.by_member_id, entry.rule->>'name' as rule, entry.effect, since.fields`;

/** The conversations filed on a record in the trays that the viewer may look into, in order of their newest message. */
export async function filedThreads(db: Database, grant: TrayGrant, recordId: RecordId): Promise<FiledThread[]> {
  const found = await knexOf(db).raw<{ rows: ThreadRow[] }>(
    /* sql */ `
    with filed as materialized (select ${ABOUT_THREAD} ${FILED})
    select filed.*, ${ENTRY} from filed ${entryOn(":recordText")}
    order by filed.last_message_at, filed.id`,
    { memberId: grant.memberId, recordId, recordText: recordId },
  );
  return found.rows.map(threadOf);
}

/** How some conversations of a tray are filed on the records that the viewer may know of, in the order of the codes. */
export async function filingsOfConversations(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<(FiledThread & { readonly code: string })[]> {
  const found = await knexOf(db).raw<{ rows: (ThreadRow & { code: string })[] }>(
    /* sql */ `
    with filed as materialized (
      select ${ABOUT_THREAD}, record.id as record_id, record.code
      from conversation as c join record on record.id = any(c.record_ids) and ${SEEN}
      where c.id = any(:ids) and c.tray_id = :trayId)
    select filed.*, ${ENTRY} from filed ${entryOn("filed.record_id::text")}
    order by filed.code, filed.id`,
    { ids: [...ids], trayId: grant.tray.id, memberId: grant.memberId } as never,
  );
  return found.rows.map((row) => ({ ...threadOf(row), code: row.code }));
}

const threadOf = ({ subject, who, at: filedAt, by_member_id, rule, effect, ...row }: ThreadRow): FiledThread => ({
  ...{ id: trustedId<ConversationId>(row.id), subject, who, rule, filedAt: atOrNull(filedAt) },
  ...{ traySlug: row.tray_slug, newestAt: at(row.last_message_at), messageCount: row.message_count },
  filedBy: by_member_id === null ? null : trustedId<MemberId>(by_member_id),
  ...(effect?.means === undefined ? {} : { means: effect.means }),
  ...(row.fields === null && effect?.fields === undefined ? {} : { fields: row.fields ?? effect?.fields ?? {} }),
  standing: row.standing,
  ...(effect?.earlier === undefined ? {} : { earlier: effect.earlier }),
});

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
  const found = await knexOf(db).raw<{ rows: MessageRow[] }>(
    `with ${MESSAGES} ${WHOLE_MESSAGES} from on_record as message ${IN_ORDER}`,
    { memberId: grant.memberId, recordId },
  );
  return found.rows.map(messageOf);
}

/** All messages of some conversations of a tray, in the same way. */
export async function messagesOfConversations(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<MessageOnRecord[]> {
  const found = await knexOf(db).raw<{ rows: MessageRow[] }>(
    `with message as (select * from message where conversation_id = any(:ids) and tray_id = :trayId)
    ${WHOLE_MESSAGES} from message ${IN_ORDER}`,
    { ids: [...ids], trayId: grant.tray.id } as never,
  );
  return found.rows.map(messageOf);
}

const WHOLE_MESSAGES = /* sql */ `
  select message.id, tray_id, conversation_id, direction, sent_at, message.subject, message.message_id, from_name,
    from_address, recipients, attachments, own_text, rest_text`;
const IN_ORDER = /* sql */ `left join message_text on message_text.message_id = message.id
  where delivery is distinct from 'withdrawn' order by sent_at, message.id`;

const messageOf = (row: MessageRow): MessageOnRecord => ({
  ...{ direction: row.direction, subject: row.subject, messageId: row.message_id, fromName: row.from_name },
  ...{ recipients: row.recipients, attachments: row.attachments },
  ...{ ownText: row.own_text ?? "", restText: row.rest_text ?? "" },
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

/** A message or an attachment that is filed on a record by itself. */
export type PartOnRecord = Pick<Filing, "means" | "fields" | "earlier"> & {
  readonly messageId: MessageId;
  /** The name of the attachment; null for all of the message. */
  readonly fileName: string | null;
  readonly attachment: number | null;
  readonly conversationId: ConversationId;
  readonly trayId: TrayId;
  readonly traySlug: string;
  readonly subject: string;
  readonly who: string;
  readonly direction: "in" | "out";
  readonly sentAt: Instant;
  readonly ownText: string;
  readonly filedAt: Instant;
  readonly filedBy: MemberId | null;
};

/** What is filed on a record by itself in the trays that the viewer may look into, the newest message first. */
export async function partsOnRecord(db: Database, grant: TrayGrant, recordId: RecordId): Promise<PartOnRecord[]> {
  type Row = {
    message_id: string;
    file_name: string | null;
    attachment: number;
    conversation_id: string;
    tray_id: string;
    tray_slug: string;
    subject: string;
    who: string;
    direction: "in" | "out";
    sent_at: Date;
    own_text: string;
    filed_at: Date;
    by_member_id: string | null;
    means: FilingMeans | null;
    fields: FieldValues | null;
    earlier: Filing["earlier"] | null;
  };
  const found = await knexOf(db).raw<{ rows: Row[] }>(
    /* sql */ `
    select part.message_id, part.attachment, message.conversation_id, tray.id as tray_id, tray.slug as tray_slug, message.subject,
      coalesce(nullif(from_name, ''), from_address) as who, direction, sent_at, left(coalesce(own_text, ''), 400) as own_text,
      filed_at, by_member_id, means, fields, earlier,
      (select one->>'fileName' from jsonb_array_elements(attachments) as one
        where (one->>'index')::int = part.attachment) as file_name
    from filed_part as part join message on message.id = part.message_id
      join tray on tray.id = message.tray_id
      join tray_member on tray_member.tray_id = tray.id and tray_member.member_id = :memberId
      left join message_text on message_text.message_id = message.id
    where part.record_id = :recordId order by sent_at desc, part.message_id, part.attachment`,
    { memberId: grant.memberId, recordId },
  );
  return found.rows.map(({ subject, who, direction, ...row }) => ({
    ...{ subject, who, direction, traySlug: row.tray_slug, ownText: row.own_text, fileName: row.file_name },
    messageId: trustedId<MessageId>(row.message_id),
    trayId: trustedId<TrayId>(row.tray_id),
    attachment: row.attachment < 0 ? null : row.attachment,
    conversationId: trustedId<ConversationId>(row.conversation_id),
    sentAt: at(row.sent_at),
    filedAt: at(row.filed_at),
    filedBy: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    ...(row.means === null ? {} : { means: row.means }),
    ...(row.fields === null ? {} : { fields: row.fields }),
    ...(row.earlier == null ? {} : { earlier: row.earlier }),
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
    with ${MESSAGES}
    select from_address as address, (array_agg(from_name order by sent_at desc))[1] as name, count(*)::int as count
    from on_record where direction = 'in' and kind = 'person' and from_address <> ''
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
  /** Whether its words, as far as they have been read, are those that were asked for. */
  readonly isHit: boolean;
};

const MOST_DOCUMENTS = 1_000;

/** The documents on a record, the newest first, each with whether it has the words of a query; what stands in the text of a message is none. */
export async function documentsOnRecord(
  db: Database,
  grant: TrayGrant,
  recordId: RecordId,
  query: Query,
): Promise<DocumentOnRecord[]> {
  type Row = {
    id: string;
    tray_slug: string;
    sent_at: Date;
    who: string;
    direction: "in" | "out";
    attachment: Attachment;
    is_hit: boolean;
  };
  const found = await knexOf(db).raw<{ rows: Row[] }>(
    /* sql */ `
    with ${MESSAGES},
    document as (
      select on_record.id, tray_id, sent_at, from_name, from_address, direction, attachment
      from on_record cross join lateral jsonb_array_elements(attachments) as attachment
      where delivery is distinct from 'withdrawn' and not (attachment->>'inline')::boolean
      union all
      select message.id, tray_id, sent_at, from_name, from_address, direction, attachment
      from alone join message on message.id = alone.id
        cross join lateral jsonb_array_elements(attachments) as attachment
      where alone.which = (attachment->>'index')::int
    )
    select id, (select slug from tray where tray.id = document.tray_id) as tray_slug, sent_at,
      coalesce(nullif(from_name, ''), from_address) as who, direction, attachment,
      exists (select 1 from attachment_words where message_id = document.id
        and attachment_words.attachment = (document.attachment->>'index')::int
        and vector @@ to_tsquery('simple', :query)) as is_hit
    from document order by sent_at desc, id limit ${MOST_DOCUMENTS}`,
    { memberId: grant.memberId, recordId, query: tsqueryText(query) },
  );
  return found.rows.map(({ id, tray_slug, sent_at, who, direction, attachment, is_hit }) => {
    const { index, fileName, contentType, size, sha256 } = attachment;
    return {
      ...{ messageId: trustedId<MessageId>(id), traySlug: tray_slug, at: at(sent_at), who, direction },
      ...{ index, fileName, contentType, size, sha256, isHit: is_hit },
    };
  });
}
