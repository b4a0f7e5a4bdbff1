import type { Docket } from "../../core/docket/derive-docket";
import { type EmailAddress, type Mailbox, mailboxName } from "../../core/kernel/email-address";
import type { ConversationId, MemberId, MessageId, TrayId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Appointment } from "../../core/message/appointment";
import type {
  Attachment,
  Classification,
  FailedRecipient,
  MailMessage,
  Protection,
} from "../../core/message/mail-message";
import type { SenderTrust } from "../../core/message/sender-trust";
import { listIdIn, type WaysToLeave } from "../../core/message/ways-to-leave";
import { searchedPeople, searchVector } from "../../core/search/search-vector";
import { storedWording } from "../../texts/stored";
import { cutForStoring, storeSegments } from "../base/blobs";
import { inTransaction } from "../base/database";
import { namesOf, rowOf, setFrom } from "../base/described";
import type { Database, Pool, Transaction } from "../base/handle";
import { runPrepared } from "../base/prepared";
import { param, storableJson, storableText } from "../base/rows";
import { DOCKET } from "./docket-columns";

// Kept in the raw bytes in full; what is shown as text ends here.
const MAX_TEXT_CHARACTERS = 2_000_000;
const MAX_SUBJECT_CHARACTERS = 2_000;

export type Recipients = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly replyTo: readonly Mailbox[];
  /** Who gets it without being named in it; left out for nobody. */
  readonly bcc?: readonly Mailbox[];
};

/** A way on which a message reached the tray. */
export type ArrivalRoute = { readonly address: EmailAddress; readonly sender: string };

export type NewMessage = {
  readonly id: MessageId;
  readonly trayId: TrayId;
  /** The addresses of its tray. */
  readonly ownAddresses: readonly EmailAddress[];
  readonly direction: "in" | "out";
  readonly classification: Classification;
  readonly messageId: string | null;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
  /** Every id by which later messages may name this thread. */
  readonly threadIds: readonly string[];
  readonly subject: string;
  readonly from: Mailbox;
  readonly recipients: Recipients;
  readonly sentAt: Instant;
  readonly receivedAt: Instant;
  readonly authorId: MemberId | null;
  readonly raw: Uint8Array;
  readonly rawSha256: Uint8Array;
  readonly hasHtml: boolean;
  readonly betterPart: MailMessage["betterPart"];
  readonly appointments: readonly Appointment[];
  readonly failedRecipients: readonly FailedRecipient[];
  readonly attachments: readonly Attachment[];
  readonly warnings: readonly string[];
  readonly ownText: string;
  readonly restText: string;
  readonly list: string | null;
  readonly protection: Protection | null;
  readonly hasRemoteContent: boolean;
  readonly unsubscribe: WaysToLeave | null;
  /** Who seems to have sent it, as far as that was checked; null for our own. */
  readonly trust: SenderTrust | null;
  /** It joined by naming a message, and its sender was not part of the conversation. */
  readonly isNewParticipant: boolean;
  /** The addresses it came in by, and who handed it over. */
  readonly routes: readonly ArrivalRoute[];
  readonly dedupeKey: Uint8Array;
  /** For an automatic reply: when its writer says she is back, where she says so. */
  readonly returnsAt?: Instant | null;
  /** When it stops to matter, where it says so. */
  readonly expiresAt?: Instant | null;
  readonly delivery: "waiting" | "sent" | null;
  /** For our own: whether reports are asked for, and until when it can be taken back. */
  readonly sending?: { readonly asksReport: boolean; readonly leavesAt: Instant };
};

/** The conversation as it stands with the message in it; `start` only when the message starts it. */
export type MessagePlace = {
  readonly conversationId: ConversationId;
  readonly start: { readonly subject: string; readonly baseSubject: string; readonly createdAt: Instant } | null;
  /** The conversation's version with the message. */
  readonly version: number;
  readonly docket: Docket;
  /** The person outside that lists name; null keeps who is named. */
  readonly who: Mailbox | null;
  readonly newestText: string;
};

/** A message, and the conversation as it stands with it. */
export type Placed = { readonly message: NewMessage; readonly place: MessagePlace };

/**
 * Stores messages, their raw bytes, texts, search vectors and thread ids, and starts or updates their conversations: one
 * statement, as each round trip costs as much as the work itself. Those of one conversation stand in the order of their
 * versions. Within a transaction that holds the locks of their threads.
 */
export async function storeMessages(trx: Transaction, placed: readonly Placed[]): Promise<void> {
  if (placed.length > 0) await store(trx, placed.map(prepared), KEEPING);
}

/** The same for a single one. */
export async function storeMessage(trx: Transaction, message: NewMessage, place: MessagePlace): Promise<void> {
  await storeMessages(trx, [{ message, place }]);
}

// unique_violation, deadlock_detected (PostgreSQL, appendix A).
const OVERTAKEN_CODES: ReadonlySet<unknown> = new Set(["23505", "40P01"]);

/**
 * Stores a message that answers nothing and starts its conversation, in one statement without a transaction around it.
 * False, and nothing stored, when one of its ids is known to the tray: then it has to be placed.
 */
export async function storeIfUnknown(db: Pool, message: NewMessage, place: MessagePlace): Promise<boolean> {
  const one = prepared({ message, place });
  const work = (within: Database) => store(within, [one], CLAIMING);
  try {
    // What was cut out is stored before what it was cut out of: between two transactions it would be nobody's, and a bin
    // that is emptied then would take it along.
    await (one.blob.runs.length === 0 ? work(db) : inTransaction(db, work));
    return true;
  } catch (problem) {
    if (OVERTAKEN_CODES.has((problem as { code?: unknown }).code)) return false;
    throw problem;
  }
}

// An answer may have named the thread before.
const KEEP_LINKS = /* sql */ `
  insert into thread_link (tray_id, message_id, conversation_id)
  select one.tray_id, link, one.conversation_id from one, unnest(one.thread_ids) as link
  on conflict do nothing`;

// An id that is known is a conflict, which undoes the whole statement. The locks come before the ids, as in `lockThreads`,
// so that an answer that arrives at this moment waits and then finds the thread.
const CLAIM_LINKS = /* sql */ `
  insert into thread_link (tray_id, message_id, conversation_id)
  select tray_id, link, conversation_id from (
    select one.tray_id, link, one.conversation_id,
      pg_advisory_xact_lock(hashtextextended(link, hashtext(cast(one.tray_id as text)))) as held
    from one, unnest(one.thread_ids) as link
  ) as locked where held is not null`;

// The columns that a message has of its own, as they stand in its table and in the rows that are sent.
const MESSAGE_COLUMNS = `id, tray_id, conversation_id, version, direction, kind, kind_reason, message_id, in_reply_to,
  reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, author_id, raw_sha256, has_html,
  failed_recipients, attachments, warnings, dedupe_key, delivery, list_id, protection, trust, has_remote,
  is_new_participant, asks_report, leaves_at, returns_at, expires_at, unsubscribe, better_part, appointments`;

const CONVERSATION_COLUMNS = `id, tray_id, created_at, version, subject, base_subject, who, newest_text, message_count,
  last_message_at, last_in_at, who_address, list_id, has_attachment, ${namesOf(DOCKET)}`;

// What is long goes beside the rows, in one run of bytes: as JSON or as an array it would be escaped here and read out there.
const BESIDE = ["raw", "own_text", "rest_text", "vector"] as const;
const bytesOf = (name: (typeof BESIDE)[number]) =>
  `substring(cast(:bytes as bytea) from one.${name}_from for one.${name}_length)`;
const textOf = (name: (typeof BESIDE)[number]) => `convert_from(${bytesOf(name)}, 'UTF8')`;

const storing = (links: string) => /* sql */ `
  with one as materialized (
    select * from rows from (
      json_populate_recordset(cast(null as message), cast(:messages as json)),
      json_to_recordset(cast(:messages as json)) as (thread_ids text[], size int, runs jsonb, routes jsonb,
        ${BESIDE.map((name) => `${name}_from int, ${name}_length int`).join(", ")}))
  ), place as materialized (
    select * from rows from (
      json_populate_recordset(cast(null as conversation), cast(:places as json)),
      json_to_recordset(cast(:places as json)) as (starts boolean))
  ), raw as (
    insert into blob (sha256, size, content, runs) select raw_sha256, size, ${bytesOf("raw")}, runs from one
    on conflict do nothing
  ), started as (
    insert into conversation (${CONVERSATION_COLUMNS}) select ${CONVERSATION_COLUMNS} from place where starts
  ), moved_on as (
    update conversation set version = place.version, who = coalesce(place.who, conversation.who),
      who_address = coalesce(place.who_address, conversation.who_address),
      list_id = coalesce(place.list_id, conversation.list_id),
      has_attachment = conversation.has_attachment or place.has_attachment, newest_text = place.newest_text,
      message_count = conversation.message_count + place.message_count,
      last_message_at = greatest(conversation.last_message_at, place.last_message_at),
      last_in_at = coalesce(place.last_in_at, conversation.last_in_at), ${setFrom(DOCKET, "place")}
    from place where not place.starts and conversation.id = place.id
  ), kept as (
    insert into message (${MESSAGE_COLUMNS}) select ${MESSAGE_COLUMNS} from one
  ), body as (
    insert into message_text (message_id, own_text, rest_text)
    select id, ${textOf("own_text")}, ${textOf("rest_text")} from one
  ), links as (${links}
  ), routes as (
    insert into arrival_route (message_id, address, sender, list_id, at)
    select one.id, route.address, route.sender, one.list_id, one.received_at
    from one, jsonb_to_recordset(one.routes) as route(address text, sender text)
  )
  insert into message_search (message_id, tray_id, conversation_id, sent_at, vector)
  select id, tray_id, conversation_id, sent_at, cast(${textOf("vector")} as tsvector) from one`;

const KEEPING = storing(KEEP_LINKS);
const CLAIMING = storing(CLAIM_LINKS);

async function store(db: Database, placed: readonly Prepared[], sql: string): Promise<void> {
  const bytes: Uint8Array[] = [];
  let length = 0;
  const beside = (name: (typeof BESIDE)[number], content: Uint8Array) => {
    bytes.push(content);
    // PostgreSQL counts from 1.
    const where = { [`${name}_from`]: length + 1, [`${name}_length`]: content.byteLength };
    length += content.byteLength;
    return where;
  };
  const rows = placed.map(({ row, blob, ownText, restText, vector }) => ({
    ...row,
    ...beside("raw", blob.content),
    ...beside("own_text", Buffer.from(ownText)),
    ...beside("rest_text", Buffer.from(restText)),
    ...beside("vector", Buffer.from(vector)),
  }));
  for (const { blob } of placed) await storeSegments(db, blob.runs);
  await runPrepared(db, sql, {
    messages: storableJson(rows),
    places: storableJson(asTheyEnd(placed.map(({ place }) => place))),
    bytes: Buffer.concat(bytes),
  });
}

type Prepared = ReturnType<typeof prepared>;

/** What is stored of a message, made before anything is asked of the database. */
function prepared({ message, place }: Placed) {
  const blob = cutForStoring(message.raw);
  const ownText = storableText(message.ownText.slice(0, MAX_TEXT_CHARACTERS));
  const restText = storableText(message.restText.slice(0, MAX_TEXT_CHARACTERS));
  const vector = storableText(searchVectorOf(message));
  return {
    row: { ...messageRow(message, place), runs: blob.noted },
    place: placeRow(message, place),
    blob,
    ownText,
    restText,
    vector,
  };
}

const hex = (bytes: Uint8Array) => `\\x${Buffer.from(bytes).toString("hex")}`;

function messageRow(message: NewMessage, { conversationId, version }: MessagePlace) {
  return {
    id: message.id,
    tray_id: message.trayId,
    conversation_id: conversationId,
    version,
    direction: message.direction,
    kind: message.classification.kind,
    kind_reason: storedWording(message.classification.reason),
    message_id: message.messageId,
    in_reply_to: message.inReplyTo,
    reference_ids: message.references,
    thread_ids: message.threadIds,
    subject: message.subject.slice(0, MAX_SUBJECT_CHARACTERS),
    from_name: message.from.name,
    from_address: message.from.address,
    recipients: message.recipients,
    sent_at: param(message.sentAt),
    received_at: param(message.receivedAt),
    author_id: message.authorId,
    raw_sha256: hex(message.rawSha256),
    size: message.raw.byteLength,
    has_html: message.hasHtml,
    failed_recipients: message.failedRecipients,
    attachments: message.attachments,
    warnings: message.warnings,
    dedupe_key: hex(message.dedupeKey),
    delivery: message.delivery,
    list_id: message.list,
    protection: message.protection,
    trust: message.trust,
    has_remote: message.hasRemoteContent,
    is_new_participant: message.isNewParticipant,
    asks_report: message.sending?.asksReport ?? false,
    leaves_at: param(message.sending?.leavesAt ?? null),
    returns_at: param(message.returnsAt ?? null),
    expires_at: param(message.expiresAt ?? null),
    unsubscribe: message.unsubscribe,
    better_part: message.betterPart,
    appointments: message.appointments.length === 0 ? null : message.appointments,
    routes: message.routes,
  };
}

function placeRow(message: NewMessage, { conversationId, start, version, docket, who, newestText }: MessagePlace) {
  const receivedAt = param(message.receivedAt);
  return {
    ...rowOf(DOCKET, docket),
    id: conversationId,
    tray_id: message.trayId,
    starts: start !== null,
    created_at: param(start?.createdAt ?? null),
    subject: start?.subject.slice(0, MAX_SUBJECT_CHARACTERS) ?? null,
    base_subject: start?.baseSubject ?? null,
    version,
    who: who === null ? (start === null ? null : "") : mailboxName(who),
    who_address: who === null ? (start === null ? null : "") : who.address,
    newest_text: newestText,
    message_count: 1,
    last_message_at: receivedAt,
    last_in_at: message.direction === "in" ? receivedAt : null,
    list_id: message.list === null ? null : listIdIn(message.list),
    has_attachment: message.attachments.some(({ inline }) => !inline),
  };
}

type PlaceRow = ReturnType<typeof placeRow>;

// One row a conversation: what the last of its messages leaves, and what they come to together.
function asTheyEnd(places: readonly PlaceRow[]): PlaceRow[] {
  const ends = new Map<ConversationId, PlaceRow>();
  for (const place of places) {
    const before = ends.get(place.id);
    ends.set(place.id, before === undefined ? place : following(before, place));
  }
  return [...ends.values()];
}

function following(before: PlaceRow, place: PlaceRow): PlaceRow {
  return {
    ...place,
    starts: before.starts,
    created_at: before.created_at,
    subject: before.subject,
    base_subject: before.base_subject,
    who: place.who ?? before.who,
    who_address: place.who_address ?? before.who_address,
    message_count: before.message_count + place.message_count,
    last_message_at: theLater(before.last_message_at, place.last_message_at),
    last_in_at: place.last_in_at ?? before.last_in_at,
    list_id: place.list_id ?? before.list_id,
    has_attachment: before.has_attachment || place.has_attachment,
  };
}

const theLater = (one: Date | null, other: Date | null) =>
  one !== null && other !== null && one > other ? one : other;

function searchVectorOf(message: NewMessage): string {
  const people = [message.from, ...message.recipients.to, ...message.recipients.cc];
  // What one of us wrote is found by who it was.
  const writer = message.direction === "out" ? `${message.from.name}\n` : "";
  return searchVector({
    subject: message.subject,
    people: `${writer}${searchedPeople(people, message.ownAddresses)}`,
    ownText: message.ownText,
    restText: message.restText,
  });
}
