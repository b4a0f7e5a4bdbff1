import type { EmailAddress } from "../../core/kernel/email-address";
import {
  type CategoryId,
  type ConversationId,
  type MemberId,
  type MessageId,
  type RecordId,
  type TemplateId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type Urgency, urgencyOfRank } from "../../core/kernel/urgency";
import type { Attachment, MessageKind } from "../../core/message/mail-message";
import type { SenderTrust } from "../../core/message/sender-trust";
import { listIdIn } from "../../core/message/ways-to-leave";
import type { LearnedMessage } from "../../core/rule-learning/candidate-tests";
import type { RuleMoment } from "../../core/rules/rule";
import type { RuledMessage } from "../../core/rules/ruled-message";
import type { StandingKind } from "../../core/standing/standing";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at, atOrNull, param } from "../base/rows";
import type { Recipients } from "../facts/store-message";

/** A message of a tray, as it is stored: what rules ask of it, but for what has to be looked up or worked out. */
export type ArrivedMessage = Pick<
  RuledMessage,
  | "from"
  | "to"
  | "cc"
  | "envelope"
  | "subject"
  | "ownText"
  | "restText"
  | "kind"
  | "list"
  | "isFirst"
  | "attachments"
  | "size"
  | "isVerified"
  | "templateId"
> & {
  readonly id: MessageId;
  readonly conversationId: ConversationId;
  readonly fromName: string;
  readonly receivedAt: Instant;
  /** Its conversation as it is now. */
  readonly conversation: {
    readonly standing: StandingKind;
    readonly standingSince: Instant;
    readonly createdAt: Instant;
    /** The earliest of what is due in it. */
    readonly dueAt: Instant | null;
    readonly ownerId: MemberId | null;
    readonly categoryIds: readonly CategoryId[];
    readonly recordIds: readonly RecordId[];
    readonly urgency: Urgency;
    /** Whether we wrote in it. */
    readonly isAnswered: boolean;
  };
};

type Row = {
  id: string;
  conversation_id: string;
  from_address: EmailAddress;
  from_name: string;
  recipients: Pick<Recipients, "to" | "cc">;
  subject: string;
  own_text: string;
  rest_text: string;
  kind: MessageKind;
  list_id: string | null;
  is_first: boolean;
  attachments: readonly Attachment[];
  size: number;
  trust: SenderTrust | null;
  received_at: Date;
  envelope_from: string | null;
  envelope_to: EmailAddress[];
  template_id: string | null;
  standing: StandingKind;
  standing_since: Date;
  created_at: Date;
  next_due_at: Date | null;
  owner_id: string | null;
  category_ids: string[];
  record_ids: string[];
  urgency: number;
  is_answered: boolean;
};

const CONVERSATION = /* sql */ `c.standing, c.standing_since, c.created_at, c.owner_id, c.category_ids, c.record_ids,
  c.urgency, least(c.expected_at, c.follow_up_at, c.expires_at) as next_due_at, exists (select 1 from message as ours where ours.conversation_id = c.id and ours.direction = 'out'
    and ours.kind <> 'automatic') as is_answered`;

const STORED = /* sql */ `
  select m.id, m.conversation_id, m.from_address, m.from_name, m.recipients, m.subject, own_text, rest_text, m.kind,
    m.list_id, m.version = 1 as is_first, m.attachments, blob.size, m.trust, m.received_at,
    (select min(sender) from arrival_route where message_id = m.id) as envelope_from,
    array(select address from arrival_route where message_id = m.id order by address) as envelope_to,
    (select template_id from template_use where message_id = m.id) as template_id,
    ${CONVERSATION}
  from message as m
    join message_text on message_text.message_id = m.id
    join blob on blob.sha256 = m.raw_sha256
    join conversation as c on c.id = m.conversation_id
  where m.tray_id = :trayId`;

const ARRIVED = `${STORED} and m.direction = 'in'`;

/** A place among the messages that came to a tray, to go on from. */
export type ArrivalPlace = { readonly at: Instant; readonly id: MessageId };

// By which of its messages a conversation is judged while time passes: the newest from outside, or of ours where none is.
const NEWEST_OF_OPEN = /* sql */ `${STORED}
  and c.joined_to is null and c.standing in ('to-sort', 'our-move', 'waiting', 'resting')
  and m.id = (select newest.id from message as newest where newest.conversation_id = c.id
    order by newest.direction = 'in' desc, newest.version desc limit 1)`;

/** Those of a tray that rules are asked about at a moment: what came, what we sent, or the newest of each open conversation. */
const ASKED_AT: Readonly<Record<RuleMoment, string>> = {
  arrival: ARRIVED,
  sending: `${STORED} and m.direction = 'out'`,
  passing: NEWEST_OF_OPEN,
};

/** The newest messages of a tray that a rule of a moment is asked about, before a place where one is given. */
export async function newestSample(
  db: Database,
  grant: TrayGrant,
  moment: RuleMoment,
  before: ArrivalPlace | null,
  limit: number,
): Promise<ArrivedMessage[]> {
  const earlier = before === null ? "" : "and (m.received_at, m.id) < (:at, cast(:id as uuid))";
  const place = before === null ? {} : { at: param(before.at), id: before.id };
  const rows = await ask<Row>(
    db,
    `${ASKED_AT[moment]} ${earlier} order by m.received_at desc, m.id desc limit :limit`,
    {
      trayId: grant.tray.id,
      limit,
      ...place,
    },
  );
  return rows.map(arrivedMessageOf);
}

/** A message of ours in a tray; null where there is none. */
export async function sentMessage(db: Database, trayId: TrayId, id: MessageId): Promise<ArrivedMessage | null> {
  const [row] = await ask<Row>(db, `${ASKED_AT.sending} and m.id = :id`, { trayId, id });
  return row === undefined ? null : arrivedMessageOf(row);
}

/** The messages that came to a tray since a moment, the oldest first; of more than so many the newest. */
export async function arrivalsSince(
  db: Database,
  grant: TrayGrant,
  since: Instant,
  limit: number,
): Promise<ArrivedMessage[]> {
  const rows = await ask<Row>(
    db,
    `${ARRIVED} and m.received_at > :since order by m.received_at desc, m.id desc limit :limit`,
    { trayId: grant.tray.id, since: param(since) as Date, limit },
  );
  return rows.map(arrivedMessageOf).toReversed();
}

/** The messages of some conversations that a rule of a moment is asked about, the oldest first. */
export async function samplesIn(
  db: Database,
  trayId: TrayId,
  ids: readonly ConversationId[],
  moment: RuleMoment,
): Promise<ArrivedMessage[]> {
  const rows = await ask<Row>(
    db,
    `${ASKED_AT[moment]} and m.conversation_id = any(cast(:ids as uuid[])) order by m.received_at, m.id`,
    { trayId, ids: [...ids] },
  );
  return rows.map(arrivedMessageOf);
}

/** A message that came to a tray; null where there is none. */
export async function arrivalOf(db: Database, trayId: TrayId, id: MessageId): Promise<ArrivedMessage | null> {
  const [row] = await ask<Row>(db, `${ARRIVED} and m.id = :id`, { trayId, id });
  return row === undefined ? null : arrivedMessageOf(row);
}

/** The first message of a conversation that began with one from outside, with as much of it as is learned from. */
export type FirstArrival = LearnedMessage & {
  readonly conversationId: ConversationId;
  readonly fromName: string;
  readonly receivedAt: Instant;
  readonly conversation: ArrivedMessage["conversation"];
};

const FIRST_CHARACTERS = 4_000;

/** The newest conversations of a tray that began with a message from outside, by that message; or those with these ids. */
export async function firstArrivals(
  db: Database,
  grant: TrayGrant,
  which: { readonly ids: readonly ConversationId[] } | { readonly newest: number },
): Promise<FirstArrival[]> {
  const [condition, values] =
    "ids" in which ? ["and c.id = any(cast(:ids as uuid[]))", { ids: [...which.ids] }] : ["", {}];
  const rows = await ask<
    Omit<Row, "rest_text" | "kind" | "is_first" | "size" | "trust" | "envelope_from" | "envelope_to">
  >(
    db,
    /* sql */ `
    select m.id, m.conversation_id, m.from_address, m.from_name, m.recipients, m.subject,
      left(own_text, ${FIRST_CHARACTERS}) as own_text, m.list_id, m.attachments, m.received_at, ${CONVERSATION}
    from message as m
      join message_text on message_text.message_id = m.id
      join conversation as c on c.id = m.conversation_id
    where m.tray_id = :trayId and m.direction = 'in' and m.version = 1 ${condition}
    order by m.received_at desc, m.id desc limit :limit`,
    { trayId: grant.tray.id, limit: "ids" in which ? which.ids.length : which.newest, ...values },
  );
  return rows.map((row) => ({
    conversationId: trustedId<ConversationId>(row.conversation_id),
    ...learnedOf(row),
    fromName: row.from_name,
    receivedAt: at(row.received_at),
    conversation: conversationOf(row),
  }));
}

function learnedOf(
  row: Pick<Row, "from_address" | "recipients" | "list_id" | "subject" | "own_text" | "attachments">,
): LearnedMessage {
  return {
    from: row.from_address,
    to: row.recipients.to.map(({ address }) => address),
    cc: row.recipients.cc.map(({ address }) => address),
    list: row.list_id === null ? null : listIdIn(row.list_id),
    subject: row.subject,
    ownText: row.own_text,
    fileNames: row.attachments.filter(({ inline }) => !inline).map(({ fileName }) => fileName),
  };
}

function conversationOf(
  row: Pick<
    Row,
    | "standing"
    | "standing_since"
    | "created_at"
    | "next_due_at"
    | "owner_id"
    | "category_ids"
    | "record_ids"
    | "urgency"
    | "is_answered"
  >,
): ArrivedMessage["conversation"] {
  return {
    standing: row.standing,
    standingSince: at(row.standing_since),
    createdAt: at(row.created_at),
    dueAt: atOrNull(row.next_due_at),
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
    recordIds: row.record_ids.map((id) => trustedId<RecordId>(id)),
    urgency: urgencyOfRank(row.urgency),
    isAnswered: row.is_answered,
  };
}

function arrivedMessageOf(row: Row): ArrivedMessage {
  return {
    id: trustedId<MessageId>(row.id),
    conversationId: trustedId<ConversationId>(row.conversation_id),
    from: row.from_address,
    fromName: row.from_name,
    to: row.recipients.to.map(({ address }) => address),
    cc: row.recipients.cc.map(({ address }) => address),
    envelope: { from: row.envelope_from, to: row.envelope_to },
    subject: row.subject,
    ownText: row.own_text,
    restText: row.rest_text,
    kind: row.kind,
    list: row.list_id === null ? null : listIdIn(row.list_id),
    isFirst: row.is_first,
    attachments: row.attachments.filter(({ inline }) => !inline),
    size: row.size,
    isVerified: row.trust?.verdict === "verified",
    templateId: row.template_id === null ? null : trustedId<TemplateId>(row.template_id),
    receivedAt: at(row.received_at),
    conversation: conversationOf(row),
  };
}

/** The beginnings of messages as they came, with all of their header; what they carry in base64 may be cut out of them. */
export async function beginningsOf(
  db: Database,
  ids: readonly MessageId[],
): Promise<ReadonlyMap<MessageId, Uint8Array>> {
  const rows = await ask<{ id: string; content: Buffer }>(
    db,
    /* sql */ `
    select message.id, blob.content from message join blob on blob.sha256 = message.raw_sha256
    where message.id = any(cast(:ids as uuid[]))`,
    { ids: [...ids] },
  );
  return new Map(rows.map(({ id, content }) => [trustedId<MessageId>(id), content]));
}
