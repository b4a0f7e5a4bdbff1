import type { MemberId } from "../core/kernel/ids";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

/** What a member chose, by key; keys that she never chose anything for are not in it. */
export async function settingsOf(
  db: Database,
  memberId: MemberId,
  keys: readonly string[],
): Promise<ReadonlyMap<string, unknown>> {
  const rows: { key: string; value: unknown }[] = await knexOf(db)("member_setting")
    .select("key", "value")
    .where("member_id", memberId)
    .whereIn("key", keys);
  return new Map(rows.map(({ key, value }) => [key, value]));
}

/** Remembers a choice; null forgets it. */
export async function keepSetting(db: Database, memberId: MemberId, key: string, value: unknown): Promise<void> {
  const settings = knexOf(db)("member_setting");
  if (value === null) await settings.where({ member_id: memberId, key }).delete();
  else
    await settings
      .insert({ member_id: memberId, key, value: JSON.stringify(value) })
      .onConflict(["member_id", "key"])
      .merge();
}
