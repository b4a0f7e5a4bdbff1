import { aMessage } from "@tests/support/mail";
import { type ServerProcess, startServerProcess } from "@tests/support/server-process";
import { setUpOffice, testTray } from "@tests/support/test-database";
import { createTransport } from "nodemailer";
import { Client } from "pg";
import { afterAll, expect, it } from "vitest";

const MESSAGES = 500;
const CONNECTIONS = 8;
const KILLED_AFTER = 150;

const tray = await testTray();
let server: ServerProcess | null = null;
afterAll(async () => {
  await server?.stop();
  await tray.close();
});

// Every third answers the one before, so that threads are cut in two as well.
const messages = Array.from({ length: MESSAGES }, (_, at) =>
  aMessage({
    id: `kill-${at}@x.example`,
    subject: `Number ${at}`,
    ...(at % 3 === 1 ? { inReplyTo: `kill-${at - 1}@x.example` } : {}),
    body: "line\r\n".repeat(200),
  }),
);

/** Delivers some over several connections; gives those that got their 250. */
async function deliver(
  port: number,
  wanted: readonly number[],
  afterEach: (accepted: number) => void,
): Promise<number[]> {
  const accepted: number[] = [];
  const waiting = [...wanted];
  const connection = async () => {
    const transport = createTransport({ host: "127.0.0.1", port, ignoreTLS: true, pool: true, maxConnections: 1 });
    for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
      const raw = Buffer.from(messages[at] ?? new Uint8Array());
      const envelope = { from: "vane@x.example", to: "office@ottermoor.example" };
      await transport.sendMail({ envelope, raw }).then(
        () => accepted.push(Number(at)),
        () => {},
      );
      afterEach(accepted.length);
    }
    transport.close();
  };
  await Promise.all(Array.from({ length: CONNECTIONS }, connection));
  return accepted;
}

it("keeps every message exactly once when the server is killed while they come in", { timeout: 300_000 }, async () => {
  await setUpOffice(tray.deps);
  const all = messages.map((_, at) => at);
  const first = await startServerProcess({ DATABASE_URL: tray.url });
  let killed: Promise<void> | null = null;
  const accepted = await deliver(first.mailPort, all, (count) => {
    if (count >= KILLED_AFTER) killed ??= first.kill();
  });
  await killed;
  expect(accepted.length).toBeGreaterThanOrEqual(KILLED_AFTER);
  expect(accepted.length).toBeLessThan(MESSAGES);

  server = await startServerProcess({ DATABASE_URL: tray.url });
  const missing = all.filter((at) => !accepted.includes(at));
  // Some that were kept come again too, as a sender does that never heard the 250.
  const again = await deliver(server.mailPort, [...missing, ...accepted.slice(-20)], () => {});
  expect(again).toHaveLength(missing.length + 20);

  const client = new Client({ connectionString: tray.url });
  await client.connect();
  const { rows } = await client.query("select message_id, count(*)::int as times from message group by message_id");
  const torn = await client.query(`
    select count(*)::int as torn from message reply join message parent on parent.message_id = any(reply.in_reply_to)
    where parent.conversation_id <> reply.conversation_id`);
  await client.end();
  expect(rows).toHaveLength(MESSAGES);
  expect(rows.filter(({ times }) => times !== 1)).toEqual([]);
  expect(torn.rows[0]?.torn).toBe(0);
});
