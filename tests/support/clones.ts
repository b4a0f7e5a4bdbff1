import { randomUUID } from "node:crypto";
import { Client } from "pg";

/** The address of a database in the tests' cluster. */
function testDatabaseUrl(port: number | string, database: string): string {
  return `postgres://tray@127.0.0.1:${port}/${database}`;
}

/** A copy of a template, and how to drop it. */
export async function cloneDatabase(
  port: number | string,
  template: string,
): Promise<{ url: string; drop: () => Promise<void> }> {
  const name = `t_${randomUUID().replaceAll("-", "")}`;
  const asAdmin = async (sql: string) => {
    const admin = new Client({ connectionString: testDatabaseUrl(port, "postgres") });
    await admin.connect();
    try {
      await admin.query(sql);
    } finally {
      await admin.end();
    }
  };
  await asAdmin(`create database ${name} template ${template}`);
  return { url: testDatabaseUrl(port, name), drop: () => asAdmin(`drop database ${name} with (force)`) };
}
