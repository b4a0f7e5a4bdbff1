import type { Instant } from "../../core/kernel/instant";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";
import { atOrNull } from "./rows";

/** When the newest thing in the database happened; null where nothing has. */
export async function newestMoment(db: Database): Promise<Instant | null> {
  const found = await knexOf(db).raw<{ rows: { at: Date | null }[] }>(
    /* sql */ "select greatest((select max(received_at) from message), (select max(at) from journal)) as at",
  );
  return atOrNull(found.rows[0]?.at ?? null);
}
