import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { prepareJobQueue } from "../queue/job-queue";
import { migrationSource } from "./index";

export type MigrationReport = { readonly applied: readonly string[]; readonly at: string | null };

/** Brings the schema up to the newest migration, with the job queue's own tables. Throws when the database is newer than the code. */
export async function migrate(db: Database): Promise<MigrationReport> {
  const unknown = await unknownMigrations(db);
  if (unknown.length > 0) {
    throw new Error(`the database is newer than this program: it has ${unknown.join(", ")}; start a newer version`);
  }
  const [, applied] = (await knexOf(db).migrate.latest({ migrationSource })) as [number, string[]];
  await prepareJobQueue(db);
  return { applied, at: (await migrationSource.getMigrations([])).at(-1) ?? null };
}

/** The migrations that the code has and the database has not, or the other way round; both empty when they fit. */
export async function migrationGap(db: Database): Promise<{ missing: string[]; unknown: string[] }> {
  const known = await migrationSource.getMigrations([]);
  const applied = await appliedMigrations(db);
  return {
    missing: known.filter((name) => !applied.includes(name)),
    unknown: applied.filter((name) => !known.includes(name)),
  };
}

async function unknownMigrations(db: Database): Promise<string[]> {
  return (await migrationGap(db)).unknown;
}

async function appliedMigrations(db: Database): Promise<string[]> {
  const builder = knexOf(db);
  if (!(await builder.schema.hasTable("knex_migrations"))) return [];
  const rows = await builder<{ name: string }>("knex_migrations").select("name").orderBy("id");
  return rows.map((row) => row.name);
}
