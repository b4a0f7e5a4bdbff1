import type { Database } from "./handle";
import { knexOf } from "./knex-of";

type Values = Readonly<Record<string, unknown>> | readonly unknown[];

/** The rows that a statement gives, with its `:named` values (or its `?`) bound. What they are is the caller's to know. */
export async function ask<Row>(db: Database, statement: string, values: Values = {}): Promise<Row[]> {
  // Knex takes fewer types of values than the driver does.
  const { rows } = await knexOf(db).raw<{ rows: Row[] }>(statement, values as never);
  return rows;
}
