import { type CategoryId, type ConversationId, type MemberId, type RecordId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { Reason, StandingKind } from "../core/standing/standing";
import type { Mark } from "../core/turn-line/marks";
import type { Turn } from "../core/turns/whose-turn";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at, atOrNull } from "./rows";

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
};

/** The stored dockets of all trays in order of id, the next `limit` after an id. */
export async function storedDockets(
  db: Database,
  after: ConversationId | null,
  limit: number,
): Promise<StoredDocket[]> {
  const conversations = knexOf(db)("conversation").whereNull("joined_to");
  const rows = await (after === null ? conversations : conversations.where("id", ">", after))
    .select(
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
    )
    .orderBy("id")
    .limit(limit);
  return rows.map((row) => ({
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
  }));
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
