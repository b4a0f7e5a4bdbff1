import type { Instant } from "../../core/kernel/instant";
import { ask } from "./ask";
import type { Database } from "./handle";
import { atOrNull } from "./rows";

/** When the newest thing in the database happened; null where nothing has. */
export async function newestMoment(db: Database): Promise<Instant | null> {
  const found = await ask<{ at: Date | null }>(
    db,
    /* sql */ "select greatest((select max(received_at) from message), (select max(at) from journal)) as at",
  );
  return atOrNull(found[0]?.at ?? null);
}
