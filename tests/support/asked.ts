import { Client } from "pg";

/** What a database answers: for what no screen says exactly at once, and for what nobody of the journey does. */
export async function asked(databaseUrl: string, question: string, values: readonly unknown[] = []) {
  const client = new Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query(question, [...values]);
  await client.end();
  return rows;
}
