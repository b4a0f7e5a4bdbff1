import type { MemberId } from "../../core/kernel/ids";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { runPrepared } from "../base/prepared";
import { MEMBER_COLUMNS, type Member, memberOf } from "./members";

/** What a member chose, by key; keys that she never chose anything for are not in it. */
export async function settingsOf(
  db: Database,
  memberId: MemberId,
  keys: readonly string[],
): Promise<ReadonlyMap<string, unknown>> {
  const rows = await runPrepared<{ key: string; value: unknown }>(
    db,
    "select key, value from member_setting where member_id = :memberId and key = any(:keys)",
    { memberId, keys: [...keys] },
  );
  return new Map(rows.map(({ key, value }) => [key, value]));
}

/** What everybody who may sign in chose for one key; those who never chose are not in it. */
export async function settingOfEverybody(
  db: Database,
  key: string,
): Promise<{ readonly member: Member; readonly value: unknown }[]> {
  const rows = await knexOf(db)("member_setting")
    .select(...MEMBER_COLUMNS, "value")
    .join("member", "member.id", "member_setting.member_id")
    .where("key", key)
    .whereNull("disabled_at")
    .orderBy("member.name");
  return rows.map((row) => ({ member: memberOf(row), value: row.value }));
}

/** Remembers a choice; null forgets it. */
export async function saveSetting(db: Database, memberId: MemberId, key: string, value: unknown): Promise<void> {
  const settings = knexOf(db)("member_setting");
  if (value === null) await settings.where({ member_id: memberId, key }).delete();
  else
    await settings
      .insert({ member_id: memberId, key, value: JSON.stringify(value) })
      .onConflict(["member_id", "key"])
      .merge();
}
