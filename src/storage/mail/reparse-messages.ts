import type { EmailAddress } from "../../core/kernel/email-address";
import { type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import type { MailMessage } from "../../core/message/mail-message";
import { waysToLeave } from "../../core/message/ways-to-leave";
import { searchedPeople, searchVector } from "../../core/search/search-vector";
import { storedWording } from "../../texts/stored";
import { type BlobRow, wholeBlob } from "../base/blobs";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { storableJson, storableText } from "../base/rows";
import type { Recipients } from "../facts/store-message";

/** What is stored of a message that was made from its bytes. */
export type StoredParse = {
  readonly id: MessageId;
  readonly conversationId: ConversationId;
  readonly raw: Uint8Array;
  readonly columns: ParsedColumns;
  /** Who got it without being named in it; left out for nobody. */
  readonly bcc: Recipients["bcc"];
};

type ParsedColumns = Readonly<Record<(typeof COLUMNS)[number] | "own_text" | "rest_text", unknown>>;

const COLUMNS = [
  "kind",
  "kind_reason",
  "subject",
  "from_name",
  "from_address",
  "recipients",
  "has_html",
  "has_remote",
  "failed_recipients",
  "attachments",
  "warnings",
  "list_id",
  "protection",
  "unsubscribe",
  "better_part",
  "appointments",
] as const;
const AS_JSON: ReadonlySet<string> = new Set([
  "recipients",
  "failed_recipients",
  "attachments",
  "unsubscribe",
  "appointments",
]);

/** The next messages that came from outside, in order of id, with what was made of them. */
export async function parsesAfter(db: Database, after: MessageId | null, limit: number): Promise<StoredParse[]> {
  const rows: (ParsedColumns & BlobRow & { id: string; conversation_id: string })[] = await knexOf(db)("message")
    .select("id", "conversation_id", ...COLUMNS, "own_text", "rest_text", "content", "runs")
    .join("message_text", "message_text.message_id", "message.id")
    .join("blob", "blob.sha256", "message.raw_sha256")
    .whereNull("author_id")
    .modify((query) => void (after !== null && query.where("id", ">", after)))
    .orderBy("id")
    .limit(limit);
  return Promise.all(
    rows.map(async ({ id, conversation_id, content, runs, ...columns }) => ({
      id: trustedId<MessageId>(id),
      conversationId: trustedId<ConversationId>(conversation_id),
      raw: await wholeBlob(db, { content, runs }),
      columns,
      bcc: (columns.recipients as Recipients).bcc,
    })),
  );
}

/** What is stored of a message as it is understood now; who got it without being named in it stands nowhere else. */
export function parsedColumns(message: MailMessage, bcc: Recipients["bcc"]): ParsedColumns {
  return {
    kind: message.classification.kind,
    kind_reason: storedWording(message.classification.reason),
    subject: storableText(message.subject),
    from_name: storableText(message.from?.name ?? "Unknown sender"),
    from_address: storableText(message.from?.address ?? ""),
    recipients: {
      ...{ to: message.to, cc: message.cc, replyTo: message.replyTo },
      ...(bcc === undefined ? {} : { bcc }),
    } satisfies Recipients,
    has_html: message.html !== null,
    has_remote: message.hasRemoteContent,
    failed_recipients: message.failedRecipients,
    attachments: message.attachments,
    warnings: message.warnings,
    list_id: message.list,
    unsubscribe: waysToLeave(message.unsubscribe, message.saysOneClick),
    protection: message.protection,
    better_part: message.betterPart,
    appointments: message.appointments.length === 0 ? null : message.appointments,
    own_text: storableText(message.ownText),
    rest_text: storableText(message.restText),
  };
}

/** Writes anew what was made of a message. */
export async function rewriteParse(
  trx: Transaction,
  id: MessageId,
  message: MailMessage,
  bcc: Recipients["bcc"],
): Promise<void> {
  const { own_text, rest_text, ...columns } = parsedColumns(message, bcc);
  const stored = Object.entries(columns).map(([name, value]) => [
    name,
    AS_JSON.has(name) && value !== null ? storableJson(value) : value,
  ]);
  // What it carries may have other places now, and is read again.
  await knexOf(trx)("attachment_words").where({ message_id: id }).delete();
  await knexOf(trx)("message")
    .where({ id })
    .update({ ...Object.fromEntries(stored), documents_read: false });
  await knexOf(trx)("message_text").where({ message_id: id }).update({ own_text, rest_text });
  const people = [...(message.from === null ? [] : [message.from]), ...message.to, ...message.cc];
  const vector = searchVector({
    subject: message.subject,
    people: searchedPeople(people, await addressesOf(trx, id)),
    ownText: message.ownText,
    restText: message.restText,
  });
  await knexOf(trx).raw("update message_search set vector = cast(:vector as tsvector) where message_id = :id", {
    vector,
    id,
  });
}

async function addressesOf(trx: Transaction, id: MessageId): Promise<EmailAddress[]> {
  const rows = await knexOf(trx)("tray_address")
    .select("address")
    .whereIn("tray_id", knexOf(trx)("message").select("tray_id").where({ id }));
  return rows.map(({ address }) => address);
}
