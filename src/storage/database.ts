import type { Database } from "./handle";
import { connect, databaseOf, knexOf } from "./knex-of";

/** Opens a pool of connections; `close` waits for what is running. */
export function openDatabase(url: string, poolSize = 10): { db: Database; close: () => Promise<void> } {
  const builder = connect(url, poolSize);
  return { db: databaseOf(builder), close: () => builder.destroy() };
}

/** Runs the work in one transaction: committed when it returns, rolled back when it throws. */
export function inTransaction<T>(db: Database, work: (trx: Database) => Promise<T>): Promise<T> {
  return knexOf(db).transaction((trx) => work(databaseOf(trx)));
}

/** Answers when the database does, with its version; throws when it does not. */
export async function databaseVersion(db: Database): Promise<string> {
  const found = await knexOf(db).raw<{ rows: { version: string }[] }>("select version()");
  return found.rows[0]?.version ?? "unknown";
}
