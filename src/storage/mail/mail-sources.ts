import { type TrayId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { atOrNull, param } from "../base/rows";

/** A mailbox elsewhere that mail is fetched from (IMAP), and how far that is. */
export type MailSource = {
  readonly id: string;
  readonly trayId: TrayId;
  readonly host: string;
  readonly port: number;
  readonly secure: boolean;
  readonly userName: string;
  /** The variable of the environment that has the password: it is not kept in the database. */
  readonly passwordVariable: string;
  readonly mailbox: string;
  /** RFC 3501 2.3.1.1: uids mean something only together with it; null before the first look. */
  readonly uidValidity: bigint | null;
  readonly lastUid: number;
  readonly problem: string | null;
  readonly checkedAt: Instant | null;
};

/** Adds a source that nothing was fetched from yet. */
export async function addMailSource(
  db: Database,
  source: Omit<MailSource, "uidValidity" | "lastUid" | "problem" | "checkedAt">,
): Promise<void> {
  await knexOf(db)("mail_source").insert({
    id: source.id,
    tray_id: source.trayId,
    host: source.host,
    port: source.port,
    secure: source.secure,
    user_name: source.userName,
    password_variable: source.passwordVariable,
    mailbox: source.mailbox,
    last_uid: 0,
  });
}

/** Removes a source; what was fetched stays. False when there is none of this id. */
export async function removeMailSource(db: Database, id: string): Promise<boolean> {
  return (await knexOf(db)("mail_source").where({ id }).delete()) > 0;
}

/** Every source. */
export async function allMailSources(db: Database): Promise<MailSource[]> {
  const rows = await knexOf(db)("mail_source").orderBy("id");
  return rows.map((row) => ({
    id: row.id,
    trayId: trustedId<TrayId>(row.tray_id),
    host: row.host,
    port: row.port,
    secure: row.secure,
    userName: row.user_name,
    passwordVariable: row.password_variable,
    mailbox: row.mailbox,
    uidValidity: row.uid_validity === null ? null : BigInt(row.uid_validity),
    lastUid: Number(row.last_uid),
    problem: row.problem,
    checkedAt: atOrNull(row.checked_at),
  }));
}

/** Keeps up to where a source was fetched. */
export async function saveSourcePlace(
  db: Database,
  id: string,
  place: { readonly uidValidity: bigint; readonly lastUid: number },
): Promise<void> {
  await knexOf(db)("mail_source")
    .where({ id })
    .update({ uid_validity: place.uidValidity.toString(), last_uid: place.lastUid });
}

/** Keeps what is wrong with a source, or that nothing is. */
export async function saveSourceState(db: Database, id: string, problem: string | null, at: Instant): Promise<void> {
  await knexOf(db)("mail_source")
    .where({ id })
    .update({ problem, checked_at: param(at) });
}
