import { type ConversationId, type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { FieldValues } from "../../core/records/filing-field";
import type { Filing } from "../../core/records/filing-means";
import type { StandingKind } from "../../core/standing/standing";
import { SEEN } from "../access/record-access";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { at, atOrNull } from "../base/rows";
import { FILED } from "../facts/record-filter";

/** A conversation that is filed on a record: when, by whom (null: by the tray itself) and how. */
export type FiledThread = Pick<Filing, "means" | "fields" | "earlier"> & {
  readonly id: ConversationId;
  readonly traySlug: string;
  readonly subject: string;
  readonly who: string;
  readonly newestAt: Instant;
  readonly messageCount: number;
  readonly filedAt: Instant | null;
  readonly filedBy: MemberId | null;
  readonly rule: string | null;
  readonly standing: StandingKind;
};

type ThreadRow = {
  id: string;
  tray_slug: string;
  subject: string;
  who: string;
  last_message_at: Date;
  message_count: number;
  at: Date | null;
  by_member_id: string | null;
  rule: string | null;
  effect: Filing | null;
  fields: FieldValues | null;
  standing: StandingKind;
};

const ABOUT_THREAD = /* sql */ `c.id, (select slug from tray where tray.id = c.tray_id) as tray_slug, c.subject, c.who,
  c.last_message_at, c.message_count, c.standing`;
// How a conversation came to be on a record: the newest filing stands, with the particulars that it was given since.
const entryOn = (recordId: string) => /* sql */ `
  left join lateral (
    select journal.at, by_member_id, rule, effect, version from journal
    where conversation_id = filed.id and kind = 'filed' and effect->>'recordId' = ${recordId} and undoes is null
    order by version desc limit 1
  ) as entry on true left join lateral (
    select effect->'fields' as fields from journal
    where conversation_id = filed.id and kind = 'particulars-set' and effect->>'recordId' = ${recordId}
      and undoes is null and version > entry.version
      and not exists (select 1 from journal as undo where undo.undoes = journal.id)
    order by version desc limit 1
  ) as since on true`;
const ENTRY = /* sql */ `entry.at, entry.by_member_id, entry.rule->>'name' as rule, entry.effect, since.fields`;

/** The conversations filed on a record in the trays that the viewer may look into, in order of their newest message. */
export async function filedThreads(db: Database, grant: TrayGrant, recordId: RecordId): Promise<FiledThread[]> {
  const found = await ask<ThreadRow>(
    db,
    /* sql */ `
    with filed as materialized (select ${ABOUT_THREAD} ${FILED})
    select filed.*, ${ENTRY} from filed ${entryOn(":recordText")}
    order by filed.last_message_at, filed.id`,
    { memberId: grant.memberId, recordId, recordText: recordId },
  );
  return found.map(threadOf);
}

/** How some conversations of a tray are filed on the records that the viewer may know of, in the order of the codes. */
export async function filingsOfConversations(
  db: Database,
  grant: TrayGrant,
  ids: readonly ConversationId[],
): Promise<(FiledThread & { readonly code: string })[]> {
  const found = await ask<ThreadRow & { code: string }>(
    db,
    /* sql */ `
    with filed as materialized (
      select ${ABOUT_THREAD}, record.id as record_id, record.code
      from conversation as c join record on record.id = any(c.record_ids) and ${SEEN}
      where c.id = any(:ids) and c.tray_id = :trayId)
    select filed.*, ${ENTRY} from filed ${entryOn("filed.record_id::text")}
    order by filed.code, filed.id`,
    { ids: [...ids], trayId: grant.tray.id, memberId: grant.memberId },
  );
  return found.map((row) => ({ ...threadOf(row), code: row.code }));
}

const threadOf = ({ subject, who, at: filedAt, by_member_id, rule, effect, ...row }: ThreadRow): FiledThread => ({
  id: trustedId<ConversationId>(row.id),
  subject,
  who,
  rule,
  filedAt: atOrNull(filedAt),
  traySlug: row.tray_slug,
  newestAt: at(row.last_message_at),
  messageCount: row.message_count,
  filedBy: by_member_id === null ? null : trustedId<MemberId>(by_member_id),
  ...(effect?.means === undefined ? {} : { means: effect.means }),
  ...(row.fields === null && effect?.fields === undefined ? {} : { fields: row.fields ?? effect?.fields ?? {} }),
  standing: row.standing,
  ...(effect?.earlier === undefined ? {} : { earlier: effect.earlier }),
});
