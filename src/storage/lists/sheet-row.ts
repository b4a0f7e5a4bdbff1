import { type CategoryId, type ConversationId, type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { type Urgency, urgencyOfRank } from "../../core/kernel/urgency";
import type { StandingKind } from "../../core/standing/standing";
import type { Mark } from "../../core/turn-line/marks";
import type { Turn } from "../../core/turns/whose-turn";
import { SEEN, SEEN_IDS } from "../access/record-access";
import { at, atOrNull } from "../base/rows";

/** A conversation as a row of the sheet. */
export type SheetRow = {
  readonly id: ConversationId;
  readonly version: number;
  readonly subject: string;
  readonly who: string;
  readonly whoAddress: string;
  readonly newestText: string;
  readonly messageCount: number;
  readonly lastMessageAt: Instant;
  /** What lists are in order of: the newest message, or the return from a rest. */
  readonly listedAt: Instant;
  /** When something is due: a reply, the end of its rest, a follow-up; the earliest of them. */
  readonly dueAt: Instant | null;
  readonly urgency: Urgency;
  readonly hasAttachment: boolean;
  readonly standing: StandingKind;
  readonly standingSince: Instant;
  readonly turn: Turn["kind"];
  readonly turnSince: Instant | null;
  readonly ownerId: MemberId | null;
  readonly followerIds: readonly MemberId[];
  readonly categoryIds: readonly CategoryId[];
  readonly recordIds: readonly RecordId[];
  readonly recordCodes: readonly string[];
  readonly expectedAt: Instant | null;
  readonly restingUntil: Instant | null;
  readonly marks: readonly Mark[];
  readonly unread: boolean;
  /** Whether the viewer began to write in it and has not sent it. */
  readonly hasDraft: boolean;
};

export type RawSheetRow = {
  id: string;
  version: number;
  subject: string;
  who: string;
  who_address: string;
  newest_text: string;
  message_count: number;
  last_message_at: Date;
  listed_at: Date;
  due_at: Date | null;
  urgency: number;
  has_attachment: boolean;
  standing: StandingKind;
  standing_since: Date;
  turn: Turn["kind"];
  turn_since: Date | null;
  owner_id: string | null;
  follower_ids: string[];
  category_ids: string[];
  record_ids: string[];
  record_codes: string[] | null;
  expected_at: Date | null;
  resting_until: Date | null;
  marks: Mark[];
  unread: boolean;
  has_draft: boolean;
};

/** The columns of a row, for a query over `conversation as c` that has a viewer as `:memberId`. */
export const SHEET_COLUMNS = /* sql */ `
  c.id, c.version, c.subject, c.who, c.who_address, c.newest_text, c.message_count, c.last_message_at,
  c.listed_at, c.due_at, c.urgency, c.has_attachment, ${SEEN_IDS} as record_ids, c.standing, c.standing_since,
  c.turn, c.turn_since, c.owner_id, c.follower_ids, c.category_ids, c.expected_at, c.resting_until, c.marks,
  case when c.record_ids = '{}' then null
    else (select array_agg(record.code order by record.code) from record where record.id = any(c.record_ids) and ${SEEN}) end as record_codes,
  coalesce(c.last_in_at > coalesce((select read_at from reading where reading.member_id = :memberId
    and reading.conversation_id = c.id), '-infinity'), false) as unread,
  exists (select 1 from draft where draft.conversation_id = c.id and draft.state = 'own' and draft.written_by = :memberId)
    as has_draft`;

/** A row of the sheet from what `SHEET_COLUMNS` gives. */
export function sheetRowOf(row: RawSheetRow): SheetRow {
  return {
    id: trustedId<ConversationId>(row.id),
    version: row.version,
    subject: row.subject,
    who: row.who,
    whoAddress: row.who_address,
    newestText: row.newest_text,
    messageCount: row.message_count,
    lastMessageAt: at(row.last_message_at),
    listedAt: at(row.listed_at),
    dueAt: atOrNull(row.due_at),
    urgency: urgencyOfRank(row.urgency),
    hasAttachment: row.has_attachment,
    standing: row.standing,
    standingSince: at(row.standing_since),
    turn: row.turn,
    turnSince: atOrNull(row.turn_since),
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    followerIds: row.follower_ids.map((id) => trustedId<MemberId>(id)),
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
    recordIds: row.record_ids.map((id) => trustedId<RecordId>(id)),
    recordCodes: row.record_codes ?? [],
    expectedAt: atOrNull(row.expected_at),
    restingUntil: atOrNull(row.resting_until),
    marks: row.marks,
    unread: row.unread,
    hasDraft: row.has_draft,
  };
}
