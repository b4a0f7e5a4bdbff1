import { readFileSync } from "node:fs";
import { hostileMail } from "@tests/support/hostile-mail";
import { aMessage } from "@tests/support/mail";
import { onThisMachine } from "@tests/support/pace";
import { type ServerProcess, startServerProcess } from "@tests/support/server-process";
import { setUpOffice, testTray } from "@tests/support/test-database";
import { createTransport } from "nodemailer";
import { Client } from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

const ANSWERED_WITHIN_MS = 2_000;
const MOST_MEMORY_MB = 600;

const tray = await testTray();
let server: ServerProcess;
let longest: number;
beforeAll(async () => {
  await setUpOffice(tray.deps);
  server = await startServerProcess({ DATABASE_URL: tray.url });
  // What is loaded at the first message is not what is measured.
  await deliver(aMessage({ id: "warm@x.example" }));
  longest = onThisMachine(ANSWERED_WITHIN_MS);
});
afterAll(async () => {
  await server?.stop();
  await tray.close();
});

async function deliver(raw: Uint8Array): Promise<{ response: string; ms: number }> {
  const transport = createTransport({ host: "127.0.0.1", port: server.mailPort, ignoreTLS: true });
  const start = performance.now();
  const { response } = await transport.sendMail({
    envelope: { from: "x@harm.example", to: "office@ottermoor.example" },
    raw: Buffer.from(raw),
  });
  transport.close();
  return { response, ms: performance.now() - start };
}

const megabytes = (field: string) =>
  Number(new RegExp(`${field}:\\s+(\\d+) kB`).exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))?.[1]) / 1024;

describe("the listener", () => {
  const hostile = hostileMail();
  it("is tried with at least 60 kinds", () => expect(hostile.length).toBeGreaterThanOrEqual(60));

  it.each(hostile)("keeps and survives: $name", async ({ raw }) => {
    const { response, ms } = await deliver(raw);
    expect(response).toMatch(/^250/);
    expect(ms).toBeLessThan(longest);
  });

  it("takes the next ordinary message, has each exactly once, and stayed small", async () => {
    expect((await deliver(aMessage({ id: "after@x.example", subject: "An ordinary one" }))).response).toMatch(/^250/);
    const client = new Client({ connectionString: tray.url });
    await client.connect();
    const { rows } = await client.query("select count(*)::int as count from message");
    const leaked = await client.query(
      "select count(*)::int as count from (select conversation_id from message group by 1 having count(*) > 1) as more",
    );
    await client.end();
    expect(rows[0]?.count).toBe(hostile.length + 2);
    expect(leaked.rows[0]?.count).toBe(0);
    expect(megabytes("VmHWM")).toBeLessThan(MOST_MEMORY_MB);
  });
});
