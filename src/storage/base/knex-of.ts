import knex, { type Knex } from "knex";
import type { Database, Pool, Transaction } from "./handle";

// The only place where the opaque handle becomes a query builder, so that no room above can build SQL.

/** The query builder behind a handle. */
export function knexOf(db: Database): Knex {
  return db as unknown as Knex;
}

/** The handle of a pool that the rooms above pass around. */
export function poolOf(builder: Knex): Pool {
  return builder as unknown as Pool;
}

/** The handle of a transaction. */
export function transactionOf(builder: Knex.Transaction): Transaction {
  return builder as unknown as Transaction;
}

/** Whether a handle is one of a transaction. */
export function isTransaction(db: Database): db is Transaction {
  return knexOf(db).isTransaction === true;
}

/**
 * A query builder over a pool of connections to a PostgreSQL database. What is asked at once on one connection, as within
 * a transaction, is sent at once and carried out in that order: one way to the database instead of one for each.
 */
export function connect(url: string, poolSize: number): Knex {
  const connection = { connectionString: url, application_name: "common-tray", pipeline: true };
  return knex({
    client: "pg",
    connection: connection as Knex.PgConnectionConfig,
    pool: { min: 0, max: poolSize },
  });
}
