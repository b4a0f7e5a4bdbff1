import type { Precedent } from "../core/filing/propose";
import { type CategoryId, type ConversationId, type MemberId, type RecordId, trustedId } from "../core/kernel/ids";
import type { StandingKind } from "../core/standing/standing";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import type { TrayGrant } from "./trays";

/** What became of the newest other conversations with a person that somebody has decided about. */
export async function precedentsWith(
  db: Database,
  grant: TrayGrant,
  address: string,
  except: ConversationId,
  limit: number,
): Promise<Precedent[]> {
  const found = await knexOf(db).raw<{
    rows: {
      owner_id: string | null;
      category_ids: string[];
      record_ids: string[];
      standing: StandingKind;
      was_answered: boolean;
    }[];
  }>(
    /* sql */ `
    select owner_id, category_ids, record_ids, standing,
      exists (select 1 from message where conversation_id = conversation.id and direction = 'out') as was_answered
    from conversation
    where tray_id = :trayId and who_address = :address and id <> :except and joined_to is null
      and standing not in ('to-sort', 'bin', 'junk')
    order by last_message_at desc limit :limit`,
    { trayId: grant.tray.id, address, except, limit },
  );
  return found.rows.map((row) => ({
    ownerId: row.owner_id === null ? null : trustedId<MemberId>(row.owner_id),
    categoryIds: row.category_ids.map((id) => trustedId<CategoryId>(id)),
    recordIds: row.record_ids.map((id) => trustedId<RecordId>(id)),
    standing: row.standing,
    wasAnswered: row.was_answered,
  }));
}
