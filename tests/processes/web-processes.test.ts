import { readFileSync } from "node:fs";
import { get } from "node:http";
import { cloneDatabase } from "@tests/support/clones";
import { posted } from "@tests/support/posted";
import { rawClient } from "@tests/support/raw-client";
import { type ServerProcess, startServerProcess } from "@tests/support/server-process";
import { DEMO_TEMPLATE } from "@tests/support/test-cluster";
import { afterAll, beforeAll, describe, expect, inject, it } from "vitest";

const WEB = 3;
const FORM = { "content-type": "application/x-www-form-urlencoded" };
const form = (fields: Record<string, string>) => new URLSearchParams(fields).toString();

let server: ServerProcess;
let drop = async () => {};

beforeAll(async () => {
  const database = await cloneDatabase(inject("clusterPort"), DEMO_TEMPLATE);
  drop = database.drop;
  server = await startServerProcess({ DATABASE_URL: database.url, WEB_PROCESSES: String(WEB), SMTP_OUT_PORT: "9" });
});
afterAll(async () => {
  await server.kill();
  await drop();
});

const others = () =>
  readFileSync(`/proc/${server.pid}/task/${server.pid}/children`, "utf8").trim().split(" ").map(Number);

/** Processor time of a process so far, in ticks (proc(5)). */
function ticksOf(pid: number): number {
  const [, after = ""] = readFileSync(`/proc/${pid}/stat`, "utf8").split(") ");
  const fields = after.split(" ");
  return Number(fields[11]) + Number(fields[12]);
}

/** A browser's cookie of a colleague who signed in; every look is over a connection of its own. */
async function signedIn(): Promise<string> {
  const client = rawClient(server.httpPort);
  const body = form({ name: "ines", password: "ottermoor" });
  const answer = await client.ownPage({ method: "POST", path: "/sign-in", headers: FORM, body });
  client.close();
  return String([answer.headers["set-cookie"]].flat()[0]).split(";")[0] ?? "";
}

const look = async (cookie: string, path: string) => {
  const client = rawClient(server.httpPort);
  const answer = await client.ownPage({ path, headers: { cookie } });
  client.close();
  return answer;
};

/** Keeps a live line open, and collects what it says. */
function listening(cookie: string): { readonly heard: () => string; readonly close: () => void } {
  let text = "";
  const headers = { cookie, connection: "close" };
  const request = get({ host: "127.0.0.1", port: server.httpPort, path: "/office/live", headers }, (response) =>
    response.on("data", (chunk) => {
      text += chunk;
    }),
  );
  request.on("error", () => {});
  return { heard: () => text, close: () => request.destroy() };
}

describe("browsers are answered by several processes", () => {
  it("that each take their share, and all tell of what one of them did", async () => {
    await expect.poll(() => others().length, { timeout: 30_000 }).toBe(WEB - 1);
    const cookie = await signedIn();
    // They are given connections once they are ready.
    const work = async () => {
      const before = others().map(ticksOf);
      for (let at = 0; at < 6 * WEB; at += 1) expect((await look(cookie, "/office/to-sort")).status).toBe(200);
      return others().every((pid, at) => ticksOf(pid) > (before[at] ?? 0));
    };
    await expect.poll(work, { timeout: 60_000 }).toBe(true);

    const lines = Array.from({ length: 2 * WEB }, () => listening(cookie));
    await expect.poll(() => lines.every(({ heard }) => heard().includes("retry"))).toBe(true);
    const { lanes } = JSON.parse((await look(cookie, "/office/lists/to-sort/start")).text);
    const [{ id }] = lanes[0].rows;
    const client = rawClient(server.httpPort);
    const body = form({ conversation: id, ...posted({ kind: "settle" }), said: "Settled" });
    const decided = await client.ownPage({
      method: "POST",
      path: "/office/decide.data",
      headers: { ...FORM, cookie },
      body,
    });
    expect(decided.status).toBe(200);
    await expect.poll(() => lines.filter(({ heard }) => heard().includes(id)).length).toBe(lines.length);
    for (let at = 0; at < 2 * WEB; at += 1)
      expect((await look(cookie, "/office/lists/to-sort/start")).text).not.toContain(id);
    for (const { close } of lines) close();
    client.close();
  });

  it("of which another is started where one is killed, and none is left when it is stopped", async () => {
    const cookie = await signedIn();
    const [killed = 0] = others();
    process.kill(killed, "SIGKILL");
    await expect.poll(() => others().filter((pid) => pid !== killed).length, { timeout: 30_000 }).toBe(WEB - 1);
    for (let at = 0; at < 2 * WEB; at += 1) expect((await look(cookie, "/office/our-move")).status).toBe(200);
    const before = others();
    expect(await server.stop()).toBe(0);
    expect(before.filter((pid) => isRunning(pid))).toEqual([]);
  });
});

function isRunning(pid: number): boolean {
  try {
    return process.kill(pid, 0);
  } catch {
    return false;
  }
}
