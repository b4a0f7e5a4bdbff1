import { execFileSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";

const POSTGRESQL = ["initdb", "postgres", "pg_ctl", "pg_isready", "psql"].map(
  (name) => `usr/lib/postgresql/15/bin/${name}`,
);
const CHROMIUM = ["usr/bin/chromium-headless-shell"];
// Debian's mail server comes in parts; of the first alone, nothing can be read by IMAP.
const MAIL_SERVER = ["usr/sbin/dovecot", "usr/lib/dovecot/lmtp"];
const IMAP = ["usr/lib/dovecot/imap", "usr/lib/dovecot/imap-login"];

let root = "";
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "machine-"));
});
afterEach(() => rmSync(root, { recursive: true }));

function install(files: readonly string[], mode = 0o755): void {
  for (const file of files) {
    mkdirSync(dirname(join(root, file)), { recursive: true });
    writeFileSync(join(root, file), "");
    chmodSync(join(root, file), mode);
  }
}
const missing = (purpose: string) =>
  execFileSync("scripts/missing-packages.sh", [purpose, root], { encoding: "utf8" }).split("\n").filter(Boolean);

describe("what a machine lacks", () => {
  it("is everything on a fresh one, for what it is needed for", () => {
    expect(missing("test")).toEqual(["postgresql", "chromium-headless-shell", "dovecot-imapd"]);
    expect(missing("bench")).toEqual(["postgresql", "chromium-headless-shell"]);
    expect(missing("demo")).toEqual(["postgresql"]);
    expect(missing("start")).toEqual([]);
  });

  it("is nothing where all is there", () => {
    install([...POSTGRESQL, ...CHROMIUM, ...MAIL_SERVER, ...IMAP]);
    expect(missing("test")).toEqual([]);
  });

  it("is the IMAP part where there is the mail server without it", () => {
    install([...POSTGRESQL, ...CHROMIUM, ...MAIL_SERVER]);
    expect(missing("test")).toEqual(["dovecot-imapd"]);
  });

  it("is the database where there are its tools alone, or an older one that is whole", () => {
    install([...CHROMIUM, ...MAIL_SERVER, ...IMAP, "usr/bin/psql", "usr/lib/postgresql/15/bin/psql"]);
    expect(missing("test")).toEqual(["postgresql"]);
    install(POSTGRESQL.map((file) => file.replace("/15/", "/9.6/")));
    expect(missing("test")).toEqual(["postgresql"]);
  });

  it("is what is there and cannot be run", () => {
    install([...POSTGRESQL, ...MAIL_SERVER, ...IMAP]);
    install(CHROMIUM, 0o644);
    expect(missing("test")).toEqual(["chromium-headless-shell"]);
  });
});
