import knex, { type Knex } from "knex";
import type { Database } from "./handle";

// The only place where the opaque handle becomes a query builder, so that no room above can build SQL.

/** The query builder behind a handle. */
export function knexOf(db: Database): Knex {
  return db as unknown as Knex;
}

/** The handle that the rooms above pass around. */
export function databaseOf(builder: Knex): Database {
  return builder as unknown as Database;
}

/** A query builder over a pool of connections to a PostgreSQL database. */
export function connect(url: string, poolSize: number): Knex {
  return knex({
    client: "pg",
    connection: { connectionString: url, application_name: "common-tray" },
    pool: { min: 0, max: poolSize },
  });
}
