import type { Docket } from "../core/docket/derive-docket";
import { type EmailAddress, type Mailbox, mailboxName } from "../core/kernel/email-address";
import type { ConversationId, MemberId, MessageId, TrayId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Appointment } from "../core/message/appointment";
import type {
  Attachment,
  Classification,
  FailedRecipient,
  MailMessage,
  Protection,
} from "../core/message/mail-message";
import type { SenderTrust } from "../core/message/sender-trust";
import { listIdIn, type WaysToLeave } from "../core/message/ways-to-leave";
import { searchedPeople, searchVector } from "../core/search/search-vector";
import { type CutBlob, cutForStoring, storeRuns } from "./blobs";
import { inTransaction } from "./database";
import type { Database, Pool, Transaction } from "./handle";
import { docketColumns } from "./keep-docket";
import { runPrepared } from "./prepared";
import { param, storableText } from "./rows";

// Kept in the raw bytes in full; what is shown as text ends here.
const MAX_TEXT_CHARACTERS = 2_000_000;
const MAX_SUBJECT_CHARACTERS = 2_000;

export type Recipients = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly replyTo: readonly Mailbox[];
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

/**
 * Stores a message, its raw bytes, text, search vector and thread ids, and starts or updates its conversation: one
 * statement, as each round trip costs as much as the work itself. Within a transaction that holds the locks of its thread.
 */
export async function storeMessage(trx: Transaction, message: NewMessage, place: MessagePlace): Promise<void> {
  await store(trx, message, cutForStoring(message.raw), place, KEEP_LINKS);
}

// unique_violation, deadlock_detected (PostgreSQL, appendix A).
const OVERTAKEN_CODES: ReadonlySet<unknown> = new Set(["23505", "40P01"]);

/**
 * Stores a message that answers nothing and starts its conversation, in one statement without a transaction around it.
 * False, and nothing stored, when one of its ids is known to the tray: then it has to be placed.
 */
export async function storeIfUnknown(db: Pool, message: NewMessage, place: MessagePlace): Promise<boolean> {
  const blob = cutForStoring(message.raw);
  const work = (within: Database) => store(within, message, blob, place, CLAIM_LINKS);
  try {
    // What was cut out is stored before what it was cut out of: between two transactions it would be nobody's, and a bin
    // that is emptied then would take it along.
    await (blob.runs.length === 0 ? work(db) : inTransaction(db, work));
    return true;
  } catch (problem) {
    if (OVERTAKEN_CODES.has((problem as { code?: unknown }).code)) return false;
    throw problem;
  }
}

// An answer may have named the thread before.
const KEEP_LINKS = /* sql */ `
  insert into thread_link (tray_id, message_id, conversation_id)
  select :trayId, id, :conversationId from unnest(cast(:threadIds as text[])) as id
  on conflict do nothing`;

// An id that is known is a conflict, which undoes the whole statement. The locks come before the ids, as in `lockThreads`,
// so that an answer that arrives at this moment waits and then finds the thread.
const CLAIM_LINKS = /* sql */ `
  insert into thread_link (tray_id, message_id, conversation_id)
  select :trayId, id, :conversationId from (
    select id, pg_advisory_xact_lock(hashtextextended(id, hashtext(cast(:trayId as text)))) as held
    from unnest(cast(:threadIds as text[])) as id
  ) as locked where held is not null`;

async function store(
  db: Database,
  message: NewMessage,
  blob: CutBlob,
  place: MessagePlace,
  links: string,
): Promise<void> {
  const subject = storableText(message.subject).slice(0, MAX_SUBJECT_CHARACTERS);
  await storeRuns(db, blob.runs);
  await runPrepared(
    db,
    /* sql */ `
    with raw as (
      insert into blob (sha256, size, content, runs) values (:rawSha256, :size, :raw, cast(:runs as jsonb)) on conflict do nothing
    ), place as (
      ${place.start === null ? UPDATE_CONVERSATION : INSERT_CONVERSATION}
    ), kept as (
      insert into message (id, tray_id, conversation_id, version, direction, kind, kind_reason, message_id, in_reply_to,
        reference_ids, subject, from_name, from_address, recipients, sent_at, received_at, author_id, raw_sha256, has_html,
        failed_recipients, attachments, warnings, dedupe_key, delivery, list_id, protection, trust, has_remote,
        is_new_participant, asks_report, leaves_at, returns_at, expires_at, unsubscribe, better_part, appointments)
      values (:id, :trayId, :conversationId, :version, :direction, :kind, :kindReason, :messageId, :inReplyTo,
        :referenceIds, :subject, :fromName, :fromAddress, :recipients, :sentAt, :receivedAt, :authorId, :rawSha256,
        :hasHtml, :failedRecipients, :attachments, :warnings, :dedupeKey, :delivery, :list, :protection, :trust, :hasRemote,
        :isNewParticipant, :asksReport, :leavesAt, :returnsAt, :expiresAt, cast(:unsubscribe as jsonb), :betterPart,
        cast(:appointments as jsonb))
    ), body as (
      insert into message_text (message_id, own_text, rest_text) values (:id, :ownText, :restText)
    ), links as (${links}
    ), routes as (
      insert into arrival_route (message_id, address, sender, list_id, at)
      select :id, route.address, route.sender, :list, :receivedAt
      from unnest(cast(:routeAddresses as text[]), cast(:routeSenders as text[])) as route(address, sender)
    )
    insert into message_search (message_id, tray_id, conversation_id, sent_at, vector)
    values (:id, :trayId, :conversationId, :sentAt, cast(:vector as tsvector))`,
    {
      ...conversationParameters(place),
      id: message.id,
      vector: searchVectorOf(message),
      trayId: message.trayId,
      direction: message.direction,
      kind: message.classification.kind,
      kindReason: message.classification.reason,
      messageId: message.messageId === null ? null : storableText(message.messageId),
      inReplyTo: message.inReplyTo.map(storableText),
      referenceIds: message.references.map(storableText),
      threadIds: message.threadIds.map(storableText),
      subject,
      fromName: storableText(message.from.name),
      fromAddress: storableText(message.from.address),
      recipients: storableText(JSON.stringify(message.recipients)),
      sentAt: param(message.sentAt),
      receivedAt: param(message.receivedAt),
      inAt: message.direction === "in" ? param(message.receivedAt) : null,
      authorId: message.authorId,
      raw: blob.content,
      runs: blob.noted,
      list: message.list === null ? null : storableText(message.list),
      listId: message.list === null ? null : storableText(listIdIn(message.list)),
      unsubscribe: message.unsubscribe === null ? null : storableText(JSON.stringify(message.unsubscribe)),
      protection: message.protection,
      hasRemote: message.hasRemoteContent,
      asksReport: message.sending?.asksReport ?? false,
      leavesAt: param(message.sending?.leavesAt ?? null),
      returnsAt: param(message.returnsAt ?? null),
      expiresAt: param(message.expiresAt ?? null),
      trust: message.trust === null ? null : storableText(JSON.stringify(message.trust)),
      isNewParticipant: message.isNewParticipant,
      routeAddresses: message.routes.map(({ address }) => storableText(address)),
      routeSenders: message.routes.map(({ sender }) => storableText(sender)),
      rawSha256: message.rawSha256,
      size: message.raw.byteLength,
      hasHtml: message.hasHtml,
      failedRecipients: storableText(JSON.stringify(message.failedRecipients)),
      attachments: storableText(JSON.stringify(message.attachments)),
      hasAttachment: message.attachments.some(({ inline }) => !inline),
      warnings: [...message.warnings],
      dedupeKey: message.dedupeKey,
      delivery: message.delivery,
      betterPart: message.betterPart,
      appointments: message.appointments.length === 0 ? null : storableText(JSON.stringify(message.appointments)),
      ownText: storableText(message.ownText).slice(0, MAX_TEXT_CHARACTERS),
      restText: storableText(message.restText).slice(0, MAX_TEXT_CHARACTERS),
    },
  );
}

const INSERT_CONVERSATION = /* sql */ `
  insert into conversation (id, tray_id, created_at, version, subject, base_subject, who, newest_text, message_count, last_message_at,
    last_in_at, who_address, list_id, has_attachment, standing, standing_since, standing_reason, turn, turn_since, owner_id, category_ids, record_ids,
    expected_at, expires_at, resting_until, woken_at, follow_up_at, urgency, marks)
  values (:conversationId, :trayId, :createdAt, :version, :conversationSubject, :baseSubject, :who, :newestText, 1, :receivedAt, :inAt,
    coalesce(:whoAddress, ''), :listId, :hasAttachment, :standing, :standing_since, :standing_reason, :turn, :turn_since, :owner_id, :category_ids, :record_ids, :expected_at, :expires_at,
    :resting_until, :woken_at, :follow_up_at, :urgency, :marks)`;

const UPDATE_CONVERSATION = /* sql */ `
  update conversation set version = :version, who = coalesce(:who, who),
    who_address = coalesce(:whoAddress, who_address), list_id = coalesce(:listId, list_id), has_attachment = has_attachment or :hasAttachment, newest_text = :newestText,
    message_count = message_count + 1, last_message_at = greatest(last_message_at, :receivedAt),
    last_in_at = coalesce(:inAt, last_in_at), standing = :standing, standing_since = :standing_since,
    standing_reason = :standing_reason, turn = :turn, turn_since = :turn_since, owner_id = :owner_id,
    category_ids = :category_ids, record_ids = :record_ids, expected_at = :expected_at, expires_at = :expires_at, resting_until = :resting_until,
    woken_at = :woken_at, follow_up_at = :follow_up_at, urgency = :urgency, marks = :marks
  where id = :conversationId`;

function conversationParameters(place: MessagePlace) {
  return {
    ...docketColumns(place.docket),
    conversationId: place.conversationId,
    version: place.version,
    who: place.who === null ? (place.start === null ? null : "") : storableText(mailboxName(place.who)),
    whoAddress: place.who === null ? null : storableText(place.who.address),
    newestText: storableText(place.newestText),
    createdAt: place.start === null ? null : param(place.start.createdAt),
    baseSubject: place.start === null ? "" : storableText(place.start.baseSubject),
    conversationSubject: place.start === null ? "" : storableText(place.start.subject).slice(0, MAX_SUBJECT_CHARACTERS),
  };
}

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
