import type { Result } from "../../core/kernel/result";
import { ask } from "./ask";
import type { Database, Pool, Transaction } from "./handle";
import { connect, knexOf, poolOf, transactionOf } from "./knex-of";

export { isTransaction } from "./knex-of";

/** Opens a pool of connections; `close` waits for what is running. */
export function openDatabase(url: string, poolSize = 10): { db: Pool; close: () => Promise<void> } {
  const builder = connect(url, poolSize);
  return { db: poolOf(builder), close: () => builder.destroy() };
}

/** Runs the work in one transaction: committed when it returns, rolled back when it throws. */
export function inTransaction<T>(db: Pool, work: (trx: Transaction) => Promise<T>): Promise<T> {
  return knexOf(db).transaction((trx) => work(transactionOf(trx)));
}

/** Carries a refusal out of a transaction, so that it is rolled back. */
class Refused extends Error {
  constructor(readonly result: Result<never, unknown>) {
    super("refused");
  }
}

/** The same for work that can be refused when some of it is done: it is rolled back then. */
export async function inTransactionUnlessRefused<T, E>(
  db: Pool,
  work: (trx: Transaction) => Promise<Result<T, E>>,
): Promise<Result<T, E>> {
  try {
    return await inTransaction(db, async (trx) => {
      const result = await work(trx);
      if (!result.ok) throw new Refused(result);
      return result;
    });
  } catch (problem) {
    if (problem instanceof Refused) return problem.result as Result<T, E>;
    throw problem;
  }
}

/** Answers when the database does, with its version; throws when it does not. */
export async function databaseVersion(db: Database): Promise<string> {
  const found = await ask<{ version: string }>(db, "select version()");
  return found[0]?.version ?? "unknown";
}
