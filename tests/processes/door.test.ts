import { readFileSync } from "node:fs";
import { Readable } from "node:stream";
import { cloneDatabase } from "@tests/support/clones";
import { demoServer } from "@tests/support/demo-server";
import { rawClient } from "@tests/support/raw-client";
import { startServerProcess } from "@tests/support/server-process";
import { everyPlace } from "@tests/support/site-map";
import { DEMO_TEMPLATE } from "@tests/support/test-cluster";
import { Client } from "pg";
import { describe, expect, inject, it } from "vitest";

const places = await everyPlace();
const KB = 1024;
const MB = 1024 * KB;
const FORM = { "content-type": "application/x-www-form-urlencoded" };

const running = demoServer();

const memory = () =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${running().server.pid}/status`, "utf8"))?.[1]) / KB;
const addressOf = (path: string) =>
  path.replace(":tray", "office").replace(/:\w+/g, "01900000-0000-7000-8000-00000000dead") || "/";

/** So many bytes that come one piece after the other, without their number being said. */
function* bytes(total: number) {
  const piece = Buffer.alloc(64 * KB, "a");
  for (let sent = 0; sent < total; sent += piece.byteLength) yield piece;
}

describe("what comes from a page that is none of ours", () => {
  const strangers = [
    { origin: "https://evil.example" },
    { origin: "http://127.0.0.1:1" },
    { origin: "http://localhost" },
    { origin: "null" },
    { "sec-fetch-site": "same-site" },
    { "sec-fetch-site": "cross-site" },
    {},
  ];
  it.each(places.map(({ path }) => path))("does nothing at %s", async (path) => {
    for (const stranger of strangers)
      for (const method of ["POST", "PUT", "PATCH", "DELETE"]) {
        const headers = { cookie: running().client.cookie(), ...FORM, ...stranger };
        const answer = await running().client.send({ method, path: addressOf(path), headers, body: "do=1" });
        expect([method, stranger, answer.status]).toEqual([method, stranger, 403]);
        expect(answer.text).toContain("did not come from a page of Common Tray");
      }
  });

  it("does not sign anybody out", async () => {
    const headers = { cookie: running().client.cookie(), origin: "https://evil.example" };
    expect((await running().client.send({ method: "POST", path: "/sign-out", headers })).status).toBe(403);
    expect((await running().client.ownPage({ path: "/office/to-sort" })).status).toBe(200);
  });

  it("is told from a page of ours by either header", async () => {
    const about = { method: "POST", path: "/office/undo", body: "batch=none" };
    for (const own of [
      { origin: `http://127.0.0.1:${running().server.httpPort}` },
      { "sec-fetch-site": "same-origin" },
    ]) {
      const answer = await running().client.send({
        ...about,
        headers: { cookie: running().client.cookie(), ...FORM, ...own },
      });
      expect(answer.status).toBe(400);
    }
  });
});

describe("a body", () => {
  it.each([
    ["/sign-in", 300 * MB],
    ["/office/undo", 300 * MB],
    ["/office/answer/01900000-0000-7000-8000-00000000dead", 40 * MB],
  ])("over its limit to %s is refused though nothing says how large it is", async (path, size) => {
    const before = memory();
    const answer = await running().client.ownPage({
      method: "POST",
      path,
      headers: FORM,
      body: Readable.from(bytes(size)),
    });
    expect(answer.status).toBe(413);
    expect(answer.headers.connection).toBe("close");
    expect(memory() - before).toBeLessThan(60);
  });

  it("that says that it is too large is refused at every route", async () => {
    for (const { path, methods, file } of places) {
      if (!methods.includes("POST") || file === "routes/office/import-upload.ts") continue;
      const headers = { ...FORM, "content-length": String(60 * MB) };
      const answer = await running().client.ownPage({
        method: "POST",
        path: addressOf(path),
        headers,
        body: Readable.from(bytes(64 * KB)),
      });
      expect([path, answer.status]).toEqual([path, 413]);
    }
  });

  it("that fits is read", async () => {
    const body = `batch=none&${"a".repeat(255 * KB)}=1`.slice(0, 255 * KB);
    expect((await running().client.ownPage({ method: "POST", path: "/office/undo", headers: FORM, body })).status).toBe(
      400,
    );
  });
});

describe("a request", () => {
  it("with a host that is none is refused", async () => {
    for (const host of ["a b", "evil.example/path", "a@b", "a?b"])
      expect((await running().client.send({ path: "/sign-in", headers: { host } })).status).toBe(400);
  });

  it("that a route does not answer is told what it does", async () => {
    const answer = await running().client.ownPage({ method: "DELETE", path: "/office/decide" });
    expect([answer.status, answer.headers.allow]).toEqual([405, "POST"]);
    expect((await running().client.ownPage({ path: "/office/decide" })).status).toBe(405);
    expect((await running().client.ownPage({ method: "POST", path: "/office/journal" })).status).toBe(405);
    expect((await running().client.ownPage({ method: "POST", path: "/nowhere/at/all/here" })).status).toBe(404);
  });

  it.each([
    "/%09/evil.example",
    "/%0A/evil.example",
    "//evil.example",
    "/\\evil.example",
    "https://evil.example",
    "/%2F/evil.example",
    "/.//evil.example",
  ])("to sign in and go on to %s leads home", async (next) => {
    for (const said of [next, encodeURIComponent(next), encodeURIComponent(decodeURIComponent(next))]) {
      const body = "colleague=ines";
      const path = `/sign-in?next=${said}`;
      const answer = await running().client.send({
        method: "POST",
        path,
        headers: { ...FORM, origin: `http://127.0.0.1:${running().server.httpPort}` },
        body,
      });
      expect([said, answer.status, answer.headers.location]).toEqual([said, 302, "/"]);
    }
  });

  it("for a private page or its data is kept by nobody", async () => {
    for (const path of [
      "/office/to-sort",
      "/office/to-sort.data",
      "/office/lists/to-sort/start",
      "/office/people",
      "/sign-in",
    ]) {
      const answer = await running().client.ownPage({ path });
      expect([path, answer.headers["cache-control"]]).toEqual([path, "no-store"]);
    }
    const page = await running().client.ownPage({ path: "/office/to-sort" });
    expect(page.headers["referrer-policy"]).toBe("same-origin");
  });

  it("for nothing is no error in the log", async () => {
    const before = running().server.said().length;
    expect((await running().client.ownPage({ path: "/nowhere" })).status).toBe(404);
    expect((await running().client.ownPage({ path: "/office/nowhere/at/all" })).status).toBe(404);
    expect((await running().client.ownPage({ path: "/assets/gone.js" })).status).toBe(404);
    expect(running().server.said().slice(before)).toEqual([]);
  });
});

describe("a stream of events", () => {
  it("is not compressed, ends with its page, and a thousand of them leave nothing", async () => {
    const before = running().server.said().length;
    const headers = { cookie: running().client.cookie(), "accept-encoding": "gzip" };
    const open = async () => {
      const aborter = new AbortController();
      const answer = await fetch(`http://127.0.0.1:${running().server.httpPort}/office/live?seen=x`, {
        headers,
        signal: aborter.signal,
      });
      const first = await answer.body?.getReader().read();
      expect(answer.headers.get("content-encoding")).toBeNull();
      expect(Buffer.from(first?.value ?? []).toString()).toContain("retry:");
      aborter.abort();
    };
    for (let round = 0; round < 50; round += 1) await Promise.all(Array.from({ length: 20 }, open));
    await expect.poll(connections, { timeout: 10_000 }).toBeLessThan(10);
    expect(running().server.said().slice(before)).toEqual([]);
  });

  it("ends at once when its session does, and when its member may not look any more", async () => {
    const watched = async (name: string) => {
      const own = rawClient(running().server.httpPort);
      await own.comeIn(name);
      const answer = await fetch(`http://127.0.0.1:${running().server.httpPort}/office/live`, {
        headers: { cookie: own.cookie() },
      });
      const reader = answer.body?.getReader();
      let ended = false;
      const read = async () => {
        for (let part = await reader?.read(); part?.done === false; part = await reader?.read());
        ended = true;
      };
      void read();
      return { own, hasEnded: () => ended };
    };
    const [out, other] = [await watched("col"), await watched("col")];
    await out.own.ownPage({ method: "POST", path: "/sign-out", headers: FORM, body: "" });
    await expect.poll(out.hasEnded, { timeout: 5_000 }).toBe(true);
    expect(other.hasEnded()).toBe(false);
    const id = (await running().db.query("select id from member where sign_in_name = 'col'")).rows[0]?.id;
    await running().client.comeIn("ines");
    const body = new URLSearchParams({ do: "role", member: id, role: "lead" }).toString();
    expect(
      (await running().client.ownPage({ method: "POST", path: "/office/members", headers: FORM, body })).status,
    ).toBe(200);
    await expect.poll(other.hasEnded, { timeout: 5_000 }).toBe(true);
    expect((await other.own.ownPage({ path: "/office/to-sort" })).headers.location).toContain("/sign-in");
    out.own.close();
    other.own.close();
  });

  // Those of its own port that are established.
  const connections = () => {
    const port = running().server.httpPort.toString(16).toUpperCase().padStart(4, "0");
    const lines = readFileSync(`/proc/${running().server.pid}/net/tcp`, "utf8").split("\n");
    return lines.filter(
      (line) => line.includes(`:${port} `) && / 01 /.test(line.slice(0, 40)) && line.indexOf(`:${port}`) < 20,
    ).length;
  };
});

describe("whether it is ready", () => {
  it("depends on a database that answers", async () => {
    const own = await cloneDatabase(inject("clusterPort"), DEMO_TEMPLATE);
    const other = await startServerProcess({ DATABASE_URL: own.url });
    const asks = rawClient(other.httpPort);
    expect((await asks.send({ path: "/healthz" })).status).toBe(200);
    const admin = new Client({ connectionString: own.url.replace(/[^/]+$/, "postgres") });
    await admin.connect();
    const name = own.url.split("/").at(-1) ?? "";
    await admin.query(`alter database ${name} allow_connections false`);
    await admin.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = $1", [name]);
    await expect.poll(async () => (await asks.send({ path: "/healthz" })).status, { timeout: 20_000 }).toBe(503);
    await admin.query(`alter database ${name} allow_connections true`);
    await admin.end();
    await expect.poll(async () => (await asks.send({ path: "/healthz" })).status, { timeout: 20_000 }).toBe(200);
    asks.close();
    await other.stop();
    await own.drop();
  });
});
