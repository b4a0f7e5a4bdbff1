import {
  type ConversationId,
  type DraftId,
  type MemberId,
  type MessageId,
  type TrayId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { CameBetween, LaterTerms } from "../../core/later-letters/later-letter";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull, param } from "../base/rows";

/** What a letter is held by: what came between, or why it could not go, written down. */
export type HeldBy = CameBetween | { readonly kind: "refused"; readonly why: string };

/** A letter that goes by itself. It has the id of the draft that it was. */
export type LaterLetter = LaterTerms & {
  readonly id: DraftId;
  readonly trayId: TrayId;
  readonly memberId: MemberId;
  /** What it answers, as that is found now; null for a first message. */
  readonly conversationId: ConversationId | null;
  /** What goes, as it was checked when it was planned. */
  readonly answer: object;
  readonly seenVersion: number;
  /** Which one of how many of a series, which is named by its first; 1 of 1 for a letter by itself. */
  readonly series: { readonly id: DraftId; readonly part: number; readonly parts: number };
  readonly state: "waiting" | "held" | "sent" | "stopped" | "called-off";
  readonly heldBy: HeldBy | null;
};

type Row = {
  id: string;
  tray_id: string;
  member_id: string;
  conversation_id: string | null;
  answer: object;
  send_at: Date;
  if_silent: boolean;
  until_settled: boolean;
  series_id: string | null;
  part: number;
  parts: number;
  seen_version: number;
  state: LaterLetter["state"];
  held_by: HeldBy | null;
};

function letterOf(row: Row): LaterLetter {
  return {
    id: trustedId<DraftId>(row.id),
    trayId: trustedId<TrayId>(row.tray_id),
    memberId: trustedId<MemberId>(row.member_id),
    conversationId: row.conversation_id === null ? null : trustedId<ConversationId>(row.conversation_id),
    answer: row.answer,
    at: at(row.send_at),
    ifSilent: row.if_silent,
    untilSettled: row.until_settled,
    series: { id: trustedId<DraftId>(row.series_id ?? row.id), part: row.part, parts: row.parts },
    seenVersion: row.seen_version,
    state: row.state,
    heldBy: row.held_by,
  };
}

/** Keeps a letter that is to go later, in place of what was planned of the same draft before. */
export async function keepLaterLetter(trx: Transaction, letter: Omit<LaterLetter, "state" | "heldBy">): Promise<void> {
  const columns = {
    tray_id: letter.trayId,
    member_id: letter.memberId,
    conversation_id: letter.conversationId,
    answer: JSON.stringify(letter.answer),
    send_at: param(letter.at),
    if_silent: letter.ifSilent,
    until_settled: letter.untilSettled,
    series_id: letter.series.parts === 1 ? null : letter.series.id,
    part: letter.series.part,
    parts: letter.series.parts,
    seen_version: letter.seenVersion,
    state: "waiting",
    held_by: null,
    message_id: null,
    ended_at: null,
  };
  await knexOf(trx)("later_letter")
    .insert({ id: letter.id, ...columns })
    .onConflict("id")
    .merge(columns);
}

// What became a part of another conversation is answered there.
const LETTER = /* sql */ `
  select letter.id, letter.tray_id, letter.member_id, coalesce(c.joined_to, c.id) as conversation_id, letter.answer,
    letter.send_at, letter.if_silent, letter.until_settled, letter.series_id, letter.part, letter.parts,
    letter.seen_version, letter.state, letter.held_by
  from later_letter as letter left join conversation as c on c.id = letter.conversation_id`;

/** The ids of the letters whose moment has come, the earliest first. */
export async function dueLaterLetters(db: Database, now: Instant, limit: number): Promise<DraftId[]> {
  const rows = await knexOf(db)("later_letter")
    .where("state", "waiting")
    .where("send_at", "<=", param(now))
    .orderBy("send_at")
    .limit(limit)
    .select("id");
  return rows.map(({ id }) => trustedId<DraftId>(id));
}

/** A letter that was planned; null where there is none. */
export async function laterLetter(db: Database, id: DraftId): Promise<LaterLetter | null> {
  const [row] = await ask<Row>(db, `${LETTER} where letter.id = :id`, { id });
  return row === undefined ? null : letterOf(row);
}

/** A letter that is still to go, held until the transaction ends; null where there is none, or somebody else has it in hand and `skips`. */
export async function lockLaterLetter(
  trx: Transaction,
  id: DraftId,
  { skips }: { readonly skips: boolean },
): Promise<LaterLetter | null> {
  const [row] = await ask<Row>(
    trx,
    `${LETTER} where letter.id = :id and letter.state in ('waiting', 'held')
     for update of letter ${skips ? "skip locked" : ""}`,
    { id },
  );
  return row === undefined ? null : letterOf(row);
}

/** The letters that are still to go for a conversation and what became a part of it, held until the transaction ends. */
export async function lockLettersIn(trx: Transaction, id: ConversationId): Promise<LaterLetter[]> {
  const rows = await ask<Row>(
    trx,
    /* sql */ `${LETTER} where letter.state = 'waiting' and letter.conversation_id in
      (select id from conversation where id = :id or joined_to = :id) order by letter.id for update of letter`,
    { id },
  );
  return rows.map(letterOf);
}

/** The letters of a series that are still to go, the next first, held until the transaction ends. */
export async function lockSeries(trx: Transaction, seriesId: DraftId): Promise<LaterLetter[]> {
  const rows = await ask<Row>(
    trx,
    `${LETTER} where (letter.series_id = :seriesId or letter.id = :seriesId) and letter.state in ('waiting', 'held')
     order by letter.part for update of letter`,
    { seriesId },
  );
  return rows.map(letterOf);
}

/** Lets the rest of a series go into the conversation that its first letter began, whose version is 1 then. */
export async function goOnIn(trx: Transaction, seriesId: DraftId, conversationId: ConversationId): Promise<void> {
  await knexOf(trx)("later_letter")
    .where({ series_id: seriesId, conversation_id: null })
    .update({ conversation_id: conversationId, seen_version: 1 });
}

/** Changes when a letter goes, or that it is held; `seenVersion` where its writer has read what came. */
export async function changeLaterLetter(
  trx: Transaction,
  id: DraftId,
  changed: Partial<Pick<LaterLetter, "at" | "seenVersion" | "heldBy">> & { readonly state: "waiting" | "held" },
): Promise<void> {
  const { at: sendAt, seenVersion, heldBy = null, state } = changed;
  await knexOf(trx)("later_letter")
    .where({ id })
    .update({
      state,
      held_by: heldBy === null ? null : JSON.stringify(heldBy),
      ...(sendAt === undefined ? {} : { send_at: param(sendAt) }),
      ...(seenVersion === undefined ? {} : { seen_version: seenVersion }),
    });
}

/** Says what became of a letter in the end. */
export async function endLaterLetter(
  trx: Transaction,
  id: DraftId,
  state: "sent" | "stopped" | "called-off",
  now: Instant,
  messageId: MessageId | null = null,
): Promise<void> {
  await knexOf(trx)("later_letter")
    .where({ id })
    .update({ state, message_id: messageId, ended_at: param(now), held_by: null });
}

/** A letter in a list, with the conversation that it is of; `endedAt` where it is over. */
export type ListedLetter = Omit<LaterLetter, "answer"> & {
  readonly to: string;
  readonly subject: string;
  /** How it begins, as it was written. */
  readonly html: string;
  readonly endedAt: Instant | null;
  readonly standing: string | null;
};

/** The letters of a tray that are to go or held, the next first, and behind them those that ended since a moment. */
export async function laterLettersOf(
  db: Database,
  { tray }: TrayGrant,
  endedSince: Instant,
  limit: number,
): Promise<ListedLetter[]> {
  const rows = await ask<ListedRow>(
    db,
    /* sql */ `
    (${LISTED} where letter.tray_id = :trayId and letter.state in ('waiting', 'held')
      order by letter.send_at, letter.id limit :limit)
    union all
    (${LISTED} where letter.tray_id = :trayId and letter.state in ('sent', 'stopped') and letter.ended_at > :since
      order by letter.ended_at desc, letter.id limit :limit)`,
    { trayId: tray.id, since: param(endedSince) as Date, limit },
  );
  return rows.map(listedOf);
}

/** The letters that are still to go in a conversation and what became a part of it, the next first. */
export async function laterLettersIn(db: Database, { tray }: TrayGrant, id: ConversationId): Promise<ListedLetter[]> {
  const rows = await ask<ListedRow>(
    db,
    /* sql */ `${LISTED} where letter.tray_id = :trayId and letter.state in ('waiting', 'held')
      and letter.conversation_id in (select id from conversation where id = :id or joined_to = :id)
      order by letter.send_at, letter.id`,
    { trayId: tray.id, id },
  );
  return rows.map(listedOf);
}

type ListedRow = Omit<Row, "answer"> & {
  to: string;
  subject: string;
  html: string;
  ended_at: Date | null;
  standing: string | null;
};

const LISTED = /* sql */ `
  select letter.id, letter.tray_id, letter.member_id, there.id as conversation_id, letter.send_at, letter.if_silent,
    letter.until_settled, letter.series_id, letter.part, letter.parts, letter.seen_version, letter.state, letter.held_by, letter.ended_at, there.standing,
    draft.content->>'to' as "to", draft.content->>'subject' as subject, left(draft.content->>'html', 4000) as html
  from later_letter as letter join draft using (id)
    left join message on message.id = letter.message_id
    left join conversation as c on c.id = coalesce(letter.conversation_id, message.conversation_id)
    left join conversation as there on there.id = coalesce(c.joined_to, c.id)`;

function listedOf(row: ListedRow): ListedLetter {
  const { answer: _, ...letter } = letterOf({ ...row, answer: {} });
  const { to, subject, html, standing } = row;
  return { ...letter, to, subject, html, standing, endedAt: atOrNull(row.ended_at) };
}
