import type { Effect } from "../../core/journal/entry";
import type { RuleMark } from "../../core/journal/rule-mark";
import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type BatchId,
  type ConversationId,
  type EntryId,
  type MemberId,
  type MessageId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import { type Instant, later } from "../../core/kernel/instant";
import type { Appointment } from "../../core/message/appointment";
import type { Attachment, FailedRecipient, MessageKind, Protection } from "../../core/message/mail-message";
import type { SenderTrust } from "../../core/message/sender-trust";
import { listIdIn, type WaysToLeave } from "../../core/message/ways-to-leave";
import type { StandingKind } from "../../core/standing/standing";
import { type Kept, readStoredWording } from "../../texts/stored";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";
import type { Recipients } from "../facts/store-message";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "../lists/sheet-row";
import type { ShownPart } from "./shown-part";

export type Delivery = {
  readonly state: "waiting" | "going" | "sent" | "failed" | "withdrawn";
  readonly reason: Kept | null;
  /** Until when it waits so that it can be taken back; null when it may go. */
  readonly leavesAt: Instant | null;
};

type RecipientState = {
  readonly address: EmailAddress;
  readonly state: "given" | "delivered" | "relayed" | "delayed" | "failed";
  readonly detail: string;
};

const RECIPIENT_STATES = /* sql */ `
  (select jsonb_agg(jsonb_build_object('address', address, 'state', state, 'detail', detail) order by address)
   from outgoing_recipient where outgoing_recipient.message_id = message.id and state <> 'given') as recipient_states`;

/** A message as the correspondence shows it. */
export type CorrespondenceMessage = {
  readonly id: MessageId;
  readonly direction: "in" | "out";
  readonly kind: MessageKind;
  readonly kindReason: Kept;
  readonly messageId: string | null;
  readonly inReplyTo: readonly string[];
  readonly references: readonly string[];
  readonly subject: string;
  readonly fromName: string;
  readonly fromAddress: EmailAddress;
  readonly recipients: Recipients;
  readonly sentAt: Instant;
  readonly authorId: MemberId | null;
  readonly hasHtml: boolean;
  readonly failedRecipients: readonly FailedRecipient[];
  readonly attachments: readonly Attachment[];
  readonly warnings: readonly string[];
  readonly ownText: string;
  readonly restText: string;
  readonly delivery: Delivery | null;
  readonly protection: Protection | null;
  readonly trust: SenderTrust | null;
  readonly isNewParticipant: boolean;
  readonly hasRemoteContent: boolean;
  /** In which part it is shown: as the reader chose for its sender, else the one that says more. */
  readonly shownPart: ShownPart;
  readonly appointments: readonly Appointment[];
  readonly unsubscribe: WaysToLeave | null;
  /** The id of the mailing list that it came through; null when it came through none. */
  readonly listId: string | null;
  /** What was reported of each recipient of a message of ours. */
  readonly recipientStates: readonly RecipientState[];
};

/** A line of the journal: an effect, or the undoing of one. */
export type JournalLine = {
  readonly id: EntryId;
  readonly version: number;
  readonly batchId: BatchId;
  readonly at: Instant;
  readonly by: MemberId | null;
  readonly rule?: RuleMark;
  readonly effect: Effect;
  readonly isUndo: boolean;
  readonly undone: boolean;
};

// A page nobody reads to the end; the rest is found by search.
const MAX_MESSAGES = 500;
const MAX_JOURNAL_LINES = 500;

/** One conversation of a tray as a row, whatever its standing; null when the tray has none of this id. */
export async function conversationRow(db: Database, grant: TrayGrant, id: ConversationId): Promise<SheetRow | null> {
  const found = await ask<RawSheetRow>(
    db,
    /* sql */ `select ${SHEET_COLUMNS} from conversation as c where c.id = :id and c.tray_id = :trayId`,
    { id, trayId: grant.tray.id, memberId: grant.memberId },
  );
  const row = found[0];
  return row === undefined ? null : sheetRowOf(row);
}

/** Those of some conversations that are of a tray, as rows, in no order. */
export async function conversationRows(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<SheetRow[]> {
  const found = await ask<RawSheetRow>(
    db,
    /* sql */ `select ${SHEET_COLUMNS} from conversation as c where c.id = any(:ids) and c.tray_id = :trayId`,
    { ids: [...ids], trayId: grant.tray.id, memberId: grant.memberId },
  );
  return found.map(sheetRowOf);
}

/** The subject of a conversation of a tray; null when it has none of this id. */
export async function conversationRowOf(
  db: Database,
  trayId: TrayId,
  id: ConversationId,
): Promise<{ readonly subject: string } | null> {
  const row = await knexOf(db)("conversation").first("subject").where({ id, tray_id: trayId });
  return row === undefined ? null : { subject: row.subject };
}

/** The newest messages of a conversation with their texts, oldest first. */
export async function correspondenceOf(
  db: Database,
  grant: TrayGrant,
  id: ConversationId,
): Promise<CorrespondenceMessage[]> {
  const rows = await knexOf(db)("message")
    .select(
      "id",
      "direction",
      "kind",
      "kind_reason",
      "message.message_id",
      "in_reply_to",
      "reference_ids",
      "subject",
      "from_name",
      "from_address",
      "recipients",
      "sent_at",
      "author_id",
      "has_html",
      "failed_recipients",
      "attachments",
      "warnings",
      "own_text",
      "rest_text",
      "delivery",
      "delivery_reason",
      "leaves_at",
      "protection",
      "trust",
      "is_new_participant",
      "has_remote",
      "unsubscribe",
      "list_id",
      "appointments",
      knexOf(db).raw("coalesce(shown_part.part, better_part) as shown_part"),
      knexOf(db).raw(RECIPIENT_STATES),
    )
    .join("message_text", "message_text.message_id", "message.id")
    .leftJoin("shown_part", (join) =>
      join.on("shown_part.address", "message.from_address").andOnVal("shown_part.member_id", grant.memberId),
    )
    .where({ conversation_id: id, tray_id: grant.tray.id })
    .whereRaw("delivery is distinct from 'withdrawn'")
    .orderBy([
      { column: "sent_at", order: "desc" },
      { column: "id", order: "desc" },
    ])
    .limit(MAX_MESSAGES);
  return rows.reverse().map((row) => ({
    id: trustedId<MessageId>(row.id),
    direction: row.direction,
    kind: row.kind,
    kindReason: readStoredWording(row.kind_reason),
    messageId: row.message_id,
    inReplyTo: row.in_reply_to,
    references: row.reference_ids,
    subject: row.subject,
    fromName: row.from_name,
    fromAddress: row.from_address,
    recipients: row.recipients,
    sentAt: at(row.sent_at),
    authorId: row.author_id === null ? null : trustedId<MemberId>(row.author_id),
    hasHtml: row.has_html,
    failedRecipients: row.failed_recipients,
    attachments: row.attachments,
    warnings: row.warnings,
    ownText: row.own_text,
    restText: row.rest_text,
    delivery:
      row.delivery === null
        ? null
        : {
            state: row.delivery,
            reason: row.delivery_reason === null ? null : readStoredWording(row.delivery_reason),
            leavesAt: atOrNull(row.leaves_at),
          },
    protection: row.protection,
    trust: row.trust,
    isNewParticipant: row.is_new_participant,
    hasRemoteContent: row.has_remote,
    shownPart: row.shown_part,
    appointments: row.appointments ?? [],
    unsubscribe: row.unsubscribe,
    listId: row.list_id === null ? null : listIdIn(row.list_id),
    recipientStates: row.recipient_states ?? [],
  }));
}

/** The subjects of some conversations of a tray, and where they stand. */
export async function subjectsOf(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<{ readonly id: ConversationId; readonly subject: string; readonly standing: StandingKind }[]> {
  if (ids.length === 0) return [];
  return knexOf(db)("conversation")
    .select("id", "subject", "standing")
    .where("tray_id", grant.tray.id)
    .whereNull("joined_to")
    .whereIn("id", ids);
}

/** The newest lines of a conversation's journal, oldest first, undone ones and undoings among them. */
export async function journalOf(db: Database, grant: TrayGrant, id: ConversationId): Promise<JournalLine[]> {
  const builder = knexOf(db);
  const rows = await builder("journal as entry")
    .select(
      "id",
      "version",
      "batch_id",
      "at",
      "by_member_id",
      "rule",
      "effect",
      "undoes",
      builder.raw("exists (select 1 from journal as undo where undo.undoes = entry.id) as undone"),
    )
    .where({ conversation_id: id, tray_id: grant.tray.id })
    .orderBy("version", "desc")
    .limit(MAX_JOURNAL_LINES);
  return rows.reverse().map((row) => ({
    id: trustedId<EntryId>(row.id),
    version: row.version,
    batchId: trustedId<BatchId>(row.batch_id),
    at: at(row.at),
    by: row.by_member_id === null ? null : trustedId<MemberId>(row.by_member_id),
    ...(row.rule === null ? {} : { rule: row.rule }),
    effect: row.effect,
    isUndo: row.undoes !== null,
    undone: row.undone,
  }));
}

/** Remembers that a member has seen a conversation as it is now. */
export async function markRead(db: Database, memberId: MemberId, id: ConversationId, readAt: Instant): Promise<void> {
  await knexOf(db)("reading")
    .insert({ member_id: memberId, conversation_id: id, read_at: param(readAt) })
    .onConflict(["member_id", "conversation_id"])
    .merge();
}

/** Forgets that a member has seen conversations of a tray, or what came to one of them from a moment on. */
export async function markUnreadFrom(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
  from: Instant | null,
): Promise<void> {
  const seen = knexOf(db)("reading")
    .where("member_id", grant.memberId)
    .whereIn(
      "conversation_id",
      knexOf(db)("conversation").select("id").where("tray_id", grant.tray.id).whereIn("id", ids),
    );
  if (from === null) await seen.delete();
  else await seen.where("read_at", ">=", param(from)).update({ read_at: param(later(from, -1)) });
}

/** Remembers that a member has seen everything in her trays that came up to a moment. */
export async function markReadUpTo(db: Database, memberId: MemberId, upTo: Instant): Promise<void> {
  await knexOf(db).raw(
    /* sql */ `
    insert into reading (member_id, conversation_id, read_at)
    select :memberId, id, last_message_at from conversation
    where last_message_at <= :upTo and tray_id in (select tray_id from tray_member where member_id = :memberId)
    on conflict (member_id, conversation_id) do update set read_at = greatest(reading.read_at, excluded.read_at)`,
    { memberId, upTo: param(upTo) as Date },
  );
}

/** The conversation of a message of a tray, and when it came; null when the tray has none of this id. */
export async function messagePlace(
  db: Database,
  grant: TrayGrant,
  id: MessageId,
): Promise<{ readonly conversationId: ConversationId; readonly receivedAt: Instant } | null> {
  const row = await knexOf(db)("message").first("conversation_id", "received_at").where({ id, tray_id: grant.tray.id });
  if (row === undefined) return null;
  return { conversationId: trustedId<ConversationId>(row.conversation_id), receivedAt: at(row.received_at) };
}
