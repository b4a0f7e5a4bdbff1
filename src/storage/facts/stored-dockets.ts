import type { Docket } from "../../core/docket/derive-docket";
import type { Label } from "../../core/filing/lesson";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import type { Tray } from "../access/trays";
import { type Described, namesOf, type Plain, plainOf, plainRow } from "../base/described";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { DOCKET, FILED_PART, FOLLOW_UP } from "./docket-columns";

/** What the store keeps of a docket, for comparing it with what the facts come to: its columns, and the rows beside them. */
export type DocketAsStored = Plain & { readonly followUps: readonly Plain[]; readonly filedParts: readonly Plain[] };

export type StoredDocket = {
  readonly id: ConversationId;
  readonly docket: DocketAsStored;
  /** What was learned of it; null while that is due. */
  readonly learned: readonly Label[] | null;
  /** Whether anybody from outside wrote in it, as far as anything was learned: else there is nothing to learn from. */
  readonly hasLetter: boolean;
};

/** The stored dockets of all trays in order of id, the next `limit` after an id. */
export async function storedDockets(
  db: Database,
  after: ConversationId | null,
  limit: number,
): Promise<StoredDocket[]> {
  const conversations = knexOf(db)("conversation").whereNull("joined_to");
  const rows = await (after === null ? conversations : conversations.where("id", ">", after))
    .select(knexOf(db).raw(STORED))
    .orderBy("id")
    .limit(limit);
  return rows.map(storedOf);
}

/** The stored dockets of some conversations. */
export async function storedDocketsOf(db: Database, ids: readonly ConversationId[]): Promise<StoredDocket[]> {
  const builder = knexOf(db);
  return (await builder("conversation").select(builder.raw(STORED)).whereIn("id", ids)).map(storedOf);
}

/** A docket as it should be stored. */
export function asStored(docket: Docket): DocketAsStored {
  return {
    ...plainOf(DOCKET, docket),
    followUps: inOrder(docket.followUps.map((one) => plainOf(FOLLOW_UP, one))),
    filedParts: inOrder(docket.filedParts.map((part) => plainOf(FILED_PART, part))),
  };
}

/** Every conversation of a tray that is not a part of another one, in order of id. */
export async function allOfTray(db: Database, tray: Pick<Tray, "id">): Promise<ConversationId[]> {
  return knexOf(db)("conversation").where({ tray_id: tray.id, joined_to: null }).orderBy("id").pluck("id");
}

const rowsOf = (
  table: string,
  described: Described<never>,
) => /* sql */ `(select coalesce(jsonb_agg(to_jsonb(one)), '[]')
  from (select ${namesOf(described)} from ${table} where conversation_id = conversation.id) as one)`;

const STORED = /* sql */ `id, ${namesOf(DOCKET)}, ${rowsOf("follow_up", FOLLOW_UP)} as follow_ups,
  ${rowsOf("filed_part", FILED_PART)} as filed_parts,
  case when not exists (select from filing_due where conversation_id = conversation.id)
    then coalesce((select labels from filing_lesson where conversation_id = conversation.id), '{}') end as learned,
  not exists (select from filing_lesson where conversation_id = conversation.id and features = '{}') as has_letter`;

type Row = Plain & {
  id: string;
  follow_ups: Plain[];
  filed_parts: Plain[];
  learned: Label[] | null;
  has_letter: boolean;
};

function storedOf(row: Row): StoredDocket {
  return {
    id: trustedId<ConversationId>(row.id),
    docket: {
      ...plainRow(DOCKET, row),
      followUps: inOrder(row.follow_ups.map((one) => plainRow(FOLLOW_UP, one))),
      filedParts: inOrder(row.filed_parts.map((part) => plainRow(FILED_PART, part))),
    },
    learned: row.learned,
    hasLetter: row.has_letter,
  };
}

// Rows have no order of their own, and no two are the same.
const inOrder = (rows: readonly Plain[]): Plain[] =>
  rows
    .map((row) => ({ row, key: JSON.stringify(row) }))
    .toSorted((a, b) => (a.key < b.key ? -1 : 1))
    .map(({ row }) => row);

/** Messages whose raw bytes are not there: there must be none. */
export async function messagesWithoutRaw(db: Database): Promise<number> {
  const row = await knexOf(db)("message")
    .leftJoin("blob", "blob.sha256", "message.raw_sha256")
    .whereNull("blob.sha256")
    .count<{ count: string }[]>("* as count")
    .first();
  return Number(row?.count ?? 0);
}
