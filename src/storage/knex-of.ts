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

interface Asks {
  _query(connection: object, asked: unknown): Promise<unknown>;
}
const PostgresClient = knex({ client: "pg" }).client.constructor as new () => Asks;
const lastAsked = new WeakMap<object, Promise<unknown>>();

/**
 * Asks something on a connection once everything is answered that was asked on it before. Within a transaction there is one
 * connection, and the driver is about to let nobody wait in it any more.
 */
export function inTurnOn<T>(connection: object, ask: () => Promise<T>): Promise<T> {
  const before = lastAsked.get(connection) ?? Promise.resolve();
  const answer = before.catch(() => {}).then(ask);
  lastAsked.set(connection, answer);
  return answer;
}

class OneAtATime extends PostgresClient {
  override _query(connection: object, asked: unknown): Promise<unknown> {
    return inTurnOn(connection, () => super._query(connection, asked));
  }
}

/** A query builder over a pool of connections to a PostgreSQL database. */
export function connect(url: string, poolSize: number): Knex {
  return knex({
    client: OneAtATime as unknown as typeof Knex.Client,
    connection: { connectionString: url, application_name: "common-tray" },
    pool: { min: 0, max: poolSize },
  });
}
