import { type CategoryId, type ConversationId, type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Reason, StandingKind } from "../../core/standing/standing";
import type { Mark } from "../../core/turn-line/marks";
import type { Turn } from "../../core/turns/whose-turn";
import type { Tray } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, atOrNull } from "../base/rows";

/** What the store keeps of a docket, for comparing it with what the facts come to. */
export type StoredDocket = {
  readonly id: ConversationId;
  readonly standing: StandingKind;
  readonly since: Instant;
  readonly reason: Reason;
  readonly turn: Turn["kind"];
  readonly turnSince: Instant | null;
  readonly ownerId: MemberId | null;
  readonly followerIds: readonly MemberId[];
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly expectedAt: Instant | null;
  readonly expiresAt: Instant | null;
  readonly restingUntil: Instant | null;
  readonly marks: readonly Mark[];
  /** What is filed alone, as `record/message/attachment`, in order. */
  readonly filedParts: readonly string[];
};

/** The stored dockets of all trays in order of id, the next `limit` after an id. */
export async function storedDockets(
  db: Database,
  after: ConversationId | null,
  limit: number,
): Promise<StoredDocket[]> {
  const conversations = knexOf(db)("conversation").whereNull("joined_to");
  const rows = await (after === null ? conversations : conversations.where("id", ">", after))
    .select(...COLUMNS, knexOf(db).raw(FILED_PARTS))
    .orderBy("id")
    .limit(limit);
  return rows.map(docketOf);
}

/** The stored dockets of some conversations. */
export async function storedDocketsOf(db: Database, ids: readonly ConversationId[]): Promise<StoredDocket[]> {
  const builder = knexOf(db);
  const rows = await builder("conversation")
    .select(...COLUMNS, builder.raw(FILED_PARTS))
    .whereIn("id", ids);
  return rows.map(docketOf);
}

/** Every conversation of a tray that is not a part of another one, in order of id. */
export async function allOfTray(db: Database, tray: Pick<Tray, "id">): Promise<ConversationId[]> {
  return knexOf(db)("conversation").where({ tray_id: tray.id, joined_to: null }).orderBy("id").pluck("id");
}

const COLUMNS = [
  "id",
  "standing",
  "standing_since",
  "standing_reason",
  "turn",
  "turn_since",
  "owner_id",
  "follower_ids",
  "category_ids",
  "record_ids",
  "expected_at",
  "expires_at",
  "resting_until",
  "marks",
];

const FILED_PARTS = /* sql */ `array(
  select concat(record_id, '/', message_id, '/', nullif(attachment, -1)) collate "C" as part from filed_part
  where conversation_id = conversation.id order by part) as filed_parts`;

type Row = {
  id: string;
  standing: StandingKind;
  standing_since: Date;
  standing_reason: Reason;
  turn: Turn["kind"];
  turn_since: Date | null;
  owner_id: string | null;
  follower_ids: MemberId[];
  category_ids: CategoryId[];
  record_ids: RecordId[];
  expected_at: Date | null;
  expires_at: Date | null;
  resting_until: Date | null;
  marks: Mark[];
  filed_parts: string[];
};

function docketOf(row: Row): StoredDocket {
  return {
    id: trustedId<ConversationId>(row.id),
    standing: row.standing,
    since: at(row.standing_since),
    reason: row.standing_reason,
    turn: row.turn,
    turnSince: atOrNull(row.turn_since),
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    followerIds: row.follower_ids,
    categoryIds: row.category_ids,
    recordIds: row.record_ids,
    expectedAt: atOrNull(row.expected_at),
    expiresAt: atOrNull(row.expires_at),
    restingUntil: atOrNull(row.resting_until),
    marks: row.marks,
    filedParts: row.filed_parts,
  };
}

/** Messages whose raw bytes are not there: there must be none. */
export async function messagesWithoutRaw(db: Database): Promise<number> {
  const row = await knexOf(db)("message")
    .leftJoin("blob", "blob.sha256", "message.raw_sha256")
    .whereNull("blob.sha256")
    .count<{ count: string }[]>("* as count")
    .first();
  return Number(row?.count ?? 0);
}
