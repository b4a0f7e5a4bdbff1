import { readFileSync } from "node:fs";
import { connect, type Socket } from "node:net";
import { aMessage } from "@tests/support/mail";
import { onThisMachine } from "@tests/support/pace";
import { type ServerProcess, startServerProcess } from "@tests/support/server-process";
import { longestSilence } from "@tests/support/silence";
import { setUpOffice, testTray } from "@tests/support/test-database";
import { createTransport } from "nodemailer";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

const MOST_MEMORY_MB = 600;
// The aim is one second, and holds on a quiet machine; others may be at work here.
const SILENT_MS = 2_000;
const MB = 1024 * 1024;

const tray = await testTray();
let server: ServerProcess;
beforeAll(async () => {
  await setUpOffice(tray.deps);
  server = await startServerProcess({ DATABASE_URL: tray.url });
  await deliver(aMessage({ id: "warm@x.example" }));
});
afterAll(async () => {
  await server?.stop();
  await tray.close();
});

function deliver(raw: Uint8Array, localAddress = "127.0.0.1"): Promise<number> {
  const transport = createTransport({ host: "127.0.0.1", port: server.mailPort, ignoreTLS: true, localAddress });
  const envelope = { from: "x@harm.example", to: "office@ottermoor.example" };
  const code = transport.sendMail({ envelope, raw: Buffer.from(raw) }).then(
    () => 250,
    (problem: { responseCode?: number }) => problem.responseCode ?? 0,
  );
  return code.finally(() => transport.close());
}

const peak = () => Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))?.[1]) / 1024;

describe("forty mails of five megabytes at once", () => {
  it("are taken one after the other, while the web answers, ordinary mail comes in, and memory stays small", async () => {
    const large = (at: number) =>
      Buffer.concat([
        aMessage({ id: `large-${at}@x.example`, subject: `Large ${at}` }),
        Buffer.from(`${"line of a letter that has no end\r\n".repeat(64)}`.repeat(Math.ceil((5 * MB) / (34 * 64)))),
      ]);
    const all = Promise.all(Array.from({ length: 40 }, (_, at) => deliver(large(at))));
    const ordinary = deliver(aMessage({ id: "ordinary@x.example" }), "127.0.0.2");
    const longest = onThisMachine(SILENT_MS);
    const [silence, codes] = await Promise.all([
      longestSilence(`http://127.0.0.1:${server.httpPort}/sign-in`, all),
      all,
    ]);
    expect(await ordinary).toBe(250);
    expect(codes.every((code) => code === 250 || (code >= 400 && code < 500))).toBe(true);
    expect(codes.filter((code) => code === 250).length).toBeGreaterThan(10);
    expect([silence > 0, silence < longest], `silent for ${silence} ms`).toEqual([true, true]);
    expect(peak()).toBeLessThan(MOST_MEMORY_MB);
  });
});

describe("two hundred idle connections from one address", () => {
  it("shut out neither others nor mail of that address", async () => {
    const idle: Socket[] = Array.from({ length: 200 }, () =>
      connect(server.mailPort, "127.0.0.3").on("error", () => {}),
    );
    const greeted = idle.map((socket) => new Promise((resolve) => socket.once("data", resolve).once("close", resolve)));
    await Promise.all(greeted);
    expect(await deliver(aMessage({ id: "other@x.example" }), "127.0.0.4")).toBe(250);
    await expect.poll(() => deliver(aMessage({ id: "same@x.example" }), "127.0.0.3"), { timeout: 10_000 }).toBe(250);
    for (const socket of idle) socket.destroy();
  });
});
