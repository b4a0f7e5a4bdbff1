import { createHash } from "node:crypto";
import type { Client } from "pg";
import type { Database } from "./handle";
import { knexOf } from "./knex-of";

type Prepared = { readonly name: string; readonly text: string; readonly parameters: readonly string[] };

const known = new Map<string, Prepared>();

/**
 * Runs a statement with `:named` parameters as a prepared one: planned once a connection. For those that run with every
 * message, conversation or page, where planning and building cost more than the work.
 */
export async function runPrepared<Row extends object>(
  db: Database,
  sql: string,
  values: Readonly<Record<string, unknown>>,
): Promise<Row[]> {
  const { name, text, parameters } = preparedOf(sql);
  const { client } = knexOf(db);
  const connection: Client = await client.acquireConnection();
  try {
    const asked = { name, text, values: parameters.map((parameter) => values[parameter] ?? null) };
    return (await connection.query<Row>(asked)).rows;
  } finally {
    await client.releaseConnection(connection);
  }
}

function preparedOf(sql: string): Prepared {
  const found = known.get(sql);
  if (found !== undefined) return found;
  const parameters: string[] = [];
  const text = sql.replace(/(?<!:):([a-z]\w*)/gi, (_, parameter: string) => {
    if (!parameters.includes(parameter)) parameters.push(parameter);
    return `$${parameters.indexOf(parameter) + 1}`;
  });
  const prepared = { name: createHash("sha256").update(text).digest("hex").slice(0, 32), text, parameters };
  known.set(sql, prepared);
  return prepared;
}
