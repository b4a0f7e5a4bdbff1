import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startServerProcess } from "@tests/support/server-process";
import { testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";

const tray = await testTray();
afterAll(() => tray.close());

describe("the server", () => {
  it("says everything that is wrong with its settings and does not start", async () => {
    const started = startServerProcess({ DATABASE_URL: "", HTTP_PORT: "25a", LOG_LEVEL: "loud" });
    await expect(started).rejects.toThrow(
      /ended with 2:[\s\S]*DATABASE_URL is not set[\s\S]*HTTP_PORT is "25a"[\s\S]*LOG_LEVEL/,
    );
  });

  it("says which port is taken", async () => {
    const other = createServer();
    await new Promise<void>((resolve) => other.listen(0, "127.0.0.1", resolve));
    const { port } = other.address() as { port: number };
    await expect(startServerProcess({ DATABASE_URL: tray.url, HTTP_PORT: String(port) })).rejects.toThrow(
      `port ${port} is taken`,
    );
    other.close();
  });

  it("says that the database does not answer", async () => {
    const started = startServerProcess({ DATABASE_URL: "postgres://tray@127.0.0.1:1/none" });
    await expect(started).rejects.toThrow(/ended with 1:[\s\S]*does not answer/);
  });

  it("answers, and ends cleanly when asked to", async () => {
    const server = await startServerProcess({ DATABASE_URL: tray.url });
    const response = await fetch(`http://127.0.0.1:${server.httpPort}/sign-in`);
    expect(response.status).toBe(200);
    expect(response.headers.get("content-security-policy")).toContain("script-src 'self' 'nonce-");
    expect(await server.stop()).toBe(0);
  });
});

describe("the operator's tool", () => {
  const tool = (args: string[], input = "") =>
    spawnSync("bin/tray", args, { encoding: "utf8", input, env: { ...process.env, DATABASE_URL: tray.url } });
  const BOX = [
    "From a@x Tue Nov 24",
    "From: Vane <vane@x.example>\nTo: office@y.example\nMessage-ID: <1@x>\nDate: Mon, 23 Nov 2026 09:00:00 +0000\nSubject: Visit\n\nMay we?\n",
    "From b@x Tue Nov 24",
    "From: office@y.example\nTo: vane@x.example\nMessage-ID: <2@y>\nIn-Reply-To: <1@x>\nDate: Mon, 23 Nov 2026 10:00:00 +0000\nSubject: Re: Visit\n\nYes.\n",
  ].join("\n");

  const folder = mkdtempSync(join(tmpdir(), "common-tray-box-"));
  const BOX_FILE = join(folder, "two.mbox");
  beforeAll(() => writeFileSync(BOX_FILE, BOX));
  afterAll(() => rmSync(folder, { recursive: true }));

  // What it understands and refuses is tested without a process, in src/cli.
  it("inspects mail without a database", () => {
    const turns = tool(
      ["inspect", "turns", BOX_FILE, "--ours", "office@y.example", "--now", "2026-11-24T00:00:00Z"],
      BOX,
    );
    expect(turns.stderr).toBe("");
    expect(JSON.parse(turns.stdout)).toEqual([
      { messageIds: ["1@x", "2@y"], turn: "them", since: "2026-11-23T10:00:00.000Z", lastRealMessageId: "2@y" },
    ]);
  });

  it("sets up a tray and a member, imports, and finds everything healthy", () => {
    expect(tool(["tray", "add", "office", "--name", "Office", "--address", "office@y.example"]).status).toBe(0);
    const member = ["member", "add", "ines", "--name", "Ines Varga", "--initials", "IV", "--tray", "office"];
    expect(tool(member, "long enough\n").status).toBe(0);
    const imported = tool(["import", BOX_FILE, "--tray", "office@y.example", "--as-history"]);
    expect(JSON.parse(imported.stdout)).toMatchObject({
      read: 2,
      added: 2,
      knownAlready: 0,
      flagged: 0,
      problem: null,
    });
    expect(JSON.parse(tool(["doctor"]).stdout)).toMatchObject({ healthy: true, conversations: 1 });
  });

  it("exits 2 when it is called wrongly", () => {
    expect(tool(["explode"]).status).toBe(2);
  });
});
