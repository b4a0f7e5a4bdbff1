import { type CategoryId, type ConversationId, type MemberId, trustedId } from "../core/kernel/ids";
import type { Instant } from "../core/kernel/instant";
import type { StandingKind } from "../core/standing/standing";
import type { Mark } from "../core/turn-line/marks";
import type { Turn } from "../core/turns/whose-turn";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { at, atOrNull } from "./rows";
import type { TrayGrant } from "./trays";

/** A conversation as a row of the sheet. */
export type SheetRow = {
  readonly id: ConversationId;
  readonly version: number;
  readonly subject: string;
  readonly who: string;
  readonly newestText: string;
  readonly messageCount: number;
  readonly lastMessageAt: Instant;
  readonly standing: StandingKind;
  readonly standingSince: Instant;
  readonly turn: Turn["kind"];
  readonly turnSince: Instant | null;
  readonly ownerId: MemberId | null;
  readonly categoryIds: readonly CategoryId[];
  readonly recordCodes: readonly string[];
  readonly expectedAt: Instant | null;
  readonly restingUntil: Instant | null;
  readonly marks: readonly Mark[];
  readonly unread: boolean;
};

export type RawSheetRow = {
  id: string;
  version: number;
  subject: string;
  who: string;
  newest_text: string;
  message_count: number;
  last_message_at: Date;
  standing: StandingKind;
  standing_since: Date;
  turn: Turn["kind"];
  turn_since: Date | null;
  owner_id: string | null;
  category_ids: string[];
  record_codes: string[] | null;
  expected_at: Date | null;
  resting_until: Date | null;
  marks: Mark[];
  unread: boolean;
};

/** The columns of a row, for a query over `conversation as c` that has a viewer as `:memberId`. */
export const SHEET_COLUMNS = /* sql */ `
  c.id, c.version, c.subject, c.who, c.newest_text, c.message_count, c.last_message_at, c.standing, c.standing_since,
  c.turn, c.turn_since, c.owner_id, c.category_ids, c.expected_at, c.resting_until, c.marks,
  case when c.record_ids = '{}' then null
    else (select array_agg(record.code order by record.code) from record where record.id = any(c.record_ids)) end as record_codes,
  coalesce(c.last_in_at > coalesce((select read_at from reading where reading.member_id = :memberId
    and reading.conversation_id = c.id), '-infinity'), false) as unread`;

/** A row of the sheet from what `SHEET_COLUMNS` gives. */
export function sheetRowOf(row: RawSheetRow): SheetRow {
  return {
    id: trustedId<ConversationId>(row.id),
    version: row.version,
    subject: row.subject,
    who: row.who,
    newestText: row.newest_text,
    messageCount: row.message_count,
    lastMessageAt: at(row.last_message_at),
    standing: row.standing,
    standingSince: at(row.standing_since),
    turn: row.turn,
    turnSince: atOrNull(row.turn_since),
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
    recordCodes: row.record_codes ?? [],
    expectedAt: atOrNull(row.expected_at),
    restingUntil: atOrNull(row.resting_until),
    marks: row.marks,
    unread: row.unread,
  };
}

/** The newest conversations of a tray in one standing, by their newest message. */
export async function conversationsInStanding(
  db: Database,
  grant: TrayGrant,
  standing: StandingKind,
  limit: number,
): Promise<SheetRow[]> {
  const found = await knexOf(db).raw<{ rows: RawSheetRow[] }>(
    /* sql */ `
    select ${SHEET_COLUMNS} from conversation as c
    where c.tray_id = :trayId and c.standing = :standing
    order by c.last_message_at desc, c.id desc
    limit :limit`,
    { memberId: grant.memberId, trayId: grant.tray.id, standing, limit },
  );
  return found.rows.map(sheetRowOf);
}
