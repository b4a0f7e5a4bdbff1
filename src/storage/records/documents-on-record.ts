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
import type { FieldValues } from "../../core/records/filing-field";
import type { Filing, FilingMeans } from "../../core/records/filing-means";
import type { Query } from "../../core/search/query";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at } from "../base/rows";
import { MESSAGES } from "../facts/record-filter";
import { tsqueryText } from "../lists/search-messages";

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
  const found = await ask<Row>(
    db,
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
  return found.map(({ subject, who, direction, ...row }) => ({
    subject,
    who,
    direction,
    traySlug: row.tray_slug,
    ownText: row.own_text,
    fileName: row.file_name,
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
  const found = await ask<Row>(
    db,
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
  return found.map(({ id, tray_slug, sent_at, who, direction, attachment, is_hit }) => {
    const { index, fileName, contentType, size, sha256 } = attachment;
    return {
      messageId: trustedId<MessageId>(id),
      traySlug: tray_slug,
      at: at(sent_at),
      who,
      direction,
      index,
      fileName,
      contentType,
      size,
      sha256,
      isHit: is_hit,
    };
  });
}
