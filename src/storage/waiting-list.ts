import type { EmailAddress } from "../core/kernel/email-address";
import type { Mark } from "../core/turn-line/marks";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { type RawSheetRow, SHEET_COLUMNS, type SheetRow, sheetRowOf } from "./sheet-row";
import type { TrayGrant } from "./trays";

// What one looks over at once; the list goes on as far as there is.
export const MAX_WAITING = 500;

/** The conversations of a tray in which a reply is awaited, those first that should have come first, without a date last. */
export async function waitingRows(db: Database, grant: TrayGrant): Promise<SheetRow[]> {
  const found = await knexOf(db).raw<{ rows: RawSheetRow[] }>(
    /* sql */ `
    select ${SHEET_COLUMNS} from conversation as c
    where c.tray_id = :trayId and c.standing = 'waiting' and c.joined_to is null
    order by c.expected_at nulls last, c.id limit ${MAX_WAITING}`,
    { trayId: grant.tray.id, memberId: grant.memberId },
  );
  return found.rows.map(sheetRowOf);
}

// Habits change: what somebody did long ago says little.
const EXCHANGES_EACH = 30;
const EXCHANGES_OF_ALL = 300;

/** The newest exchanges with each of some people, as marks; and under an empty text those with everybody. */
export async function exchangesWith(
  db: Database,
  grant: TrayGrant,
  people: readonly EmailAddress[],
): Promise<ReadonlyMap<string, readonly (readonly Mark[])[]>> {
  const found = await knexOf(db).raw<{ rows: { who: string; exchanges: Mark[][] }[] }>(
    /* sql */ `
    select person as who, (
      select coalesce(jsonb_agg(newest.marks), '[]') from (
        select marks from conversation
        where tray_id = :trayId and who_address = person order by last_message_at desc limit ${EXCHANGES_EACH}
      ) as newest
    ) as exchanges
    from unnest(cast(:people as text[])) as person
    union all
    select '', coalesce(jsonb_agg(newest.marks), '[]') from (
      select marks from conversation where tray_id = :trayId and standing = 'settled'
      order by last_message_at desc limit ${EXCHANGES_OF_ALL}
    ) as newest`,
    { trayId: grant.tray.id, people: [...new Set(people)] } as never,
  );
  return new Map(found.rows.map(({ who, exchanges }) => [who, exchanges]));
}
