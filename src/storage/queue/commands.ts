import type { Instant } from "../../core/kernel/instant";
import type { TrayGrant } from "../access/trays";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

/** What was answered to a command, as it went over the line. */
export type CommandAnswer = {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: Uint8Array;
};

/** What is known of a command that was sent before: its answer; or that there is none yet, or that it is somebody else's. */
export type KnownCommand =
  | { readonly kind: "answered"; readonly answer: CommandAnswer }
  | { readonly kind: "open" | "foreign" };

/** Claims a command for being carried out; false where it was sent before. */
export async function claimCommand(db: Database, grant: TrayGrant, id: string, now: Instant): Promise<boolean> {
  const claimed = await knexOf(db)("command")
    .insert({ tray_id: grant.tray.id, id, member_id: grant.memberId, at: param(now) })
    .onConflict(["tray_id", "id"])
    .ignore()
    .returning("id");
  return claimed.length === 1;
}

/** Notes what was answered. */
export async function answerCommand(db: Database, grant: TrayGrant, id: string, answer: CommandAnswer): Promise<void> {
  const { status, headers, body } = answer;
  await knexOf(db)("command")
    .where({ tray_id: grant.tray.id, id })
    .update({ status, headers: JSON.stringify(headers), body: Buffer.from(body) });
}

/** Lets go of a command that did nothing: it can be sent again. */
export async function releaseCommand(db: Database, grant: TrayGrant, id: string): Promise<void> {
  await knexOf(db)("command").where({ tray_id: grant.tray.id, id }).delete();
}

/** What is known of a command; null where it was let go of. */
export async function knownCommand(db: Database, grant: TrayGrant, id: string): Promise<KnownCommand | null> {
  const row = await knexOf(db)("command")
    .first("member_id", "status", "headers", "body")
    .where({ tray_id: grant.tray.id, id });
  if (row === undefined) return null;
  if (row.member_id !== grant.memberId) return { kind: "foreign" };
  if (row.status === null) return { kind: "open" };
  return { kind: "answered", answer: { status: row.status, headers: row.headers, body: row.body } };
}

/** Forgets the commands of before a moment. */
export async function forgetCommandsBefore(db: Database, before: Instant): Promise<void> {
  await knexOf(db)("command").where("at", "<", param(before)).delete();
}
