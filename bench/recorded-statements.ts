import { Client } from "pg";

export type Statement = { readonly text: string; readonly values: readonly unknown[] };

/** What a piece of work sends to the database, heard at the driver. */
export async function recordedStatements(work: () => Promise<unknown>): Promise<Statement[]> {
  const statements: Statement[] = [];
  const prototype = Client.prototype as unknown as { query: (this: unknown, ...args: unknown[]) => unknown };
  const original = prototype.query;
  prototype.query = function record(...args) {
    const [first, values] = args;
    const text = typeof first === "string" ? first : (first as { text?: string }).text;
    const given = typeof first === "string" ? values : (first as { values?: unknown }).values;
    if (text !== undefined) statements.push({ text, values: Array.isArray(given) ? given : [] });
    return original.apply(this, args);
  };
  try {
    await work();
  } finally {
    prototype.query = original;
  }
  return statements;
}
