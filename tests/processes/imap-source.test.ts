import { type ImapServer, startImapServer } from "@tests/support/imap-server";
import { aMessage } from "@tests/support/mail";
import { setUpOffice, testTray } from "@tests/support/test-database";
import pino from "pino";
import { afterAll, beforeAll, expect, it, vi } from "vitest";
import { followSources } from "~/main/mail-sources";
import { addSource, listSources, removeSource } from "~/operations/index.server";

const tray = await testTray();
let server: ImapServer;
let following: { stop: () => Promise<void> };
const log = pino({ level: "silent" });

beforeAll(async () => {
  await setUpOffice(tray.deps);
  server = await startImapServer();
  server.deliver(aMessage({ id: "imap-1@x.example", subject: "Was there before" }));
});
afterAll(async () => {
  await following?.stop();
  await server?.stop();
  await tray.close();
});

const subjects = async () =>
  (await tray.ask("select subject from message order by received_at, id")).map(({ subject }) => subject);
const comes = (subject: string) =>
  vi.waitFor(async () => expect(await subjects()).toContain(subject), { timeout: 30_000, interval: 100 });
const add = (passwordVariable: string) =>
  addSource(tray.deps, {
    tray: "office",
    host: "127.0.0.1",
    port: server.port,
    secure: false,
    userName: server.user,
    passwordVariable,
    mailbox: "INBOX",
  });

it("fetches what is there, what comes, and goes on after the server was gone; it touches nothing", {
  timeout: 300_000,
}, async () => {
  expect(await add("OFFICE_PASSWORD")).toMatchObject({ ok: true });
  following = followSources(tray.deps, { OFFICE_PASSWORD: server.password }, log);
  await comes("Was there before");

  // Told by the server at once, long before the next look.
  server.deliver(aMessage({ id: "imap-2@x.example", subject: "Came while we listened" }));
  await comes("Came while we listened");

  await server.restart();
  server.deliver(aMessage({ id: "imap-3@x.example", subject: "Came after the break" }));
  await comes("Came after the break");

  await following.stop();
  server.deliver(aMessage({ id: "imap-4@x.example", subject: "Came while nobody looked" }));
  following = followSources(tray.deps, { OFFICE_PASSWORD: server.password }, log);
  await comes("Came while nobody looked");

  expect(await subjects()).toHaveLength(4);
  const [source] = await listSources(tray.deps);
  expect(source).toMatchObject({ lastUid: 4, problem: null });
  expect(source?.uidValidity).toBeTypeOf("bigint");
  // Still four, none marked as seen (S in the flags of a maildir name).
  expect(server.files()).toHaveLength(4);
  expect(server.files().filter((name) => /:2,\w*S/.test(name))).toEqual([]);
});

it("says what is wrong with a source", { timeout: 60_000 }, async () => {
  const added = await add("NOT_SET");
  const id = added.ok ? added.value.id : "";
  await following.stop();
  following = followSources(tray.deps, { OFFICE_PASSWORD: server.password, NOT_SET: "wrong" }, log);
  await vi.waitFor(
    async () => {
      const source = (await listSources(tray.deps)).find((one) => one.id === id);
      expect(source?.problem).toBe("the server refuses the user or the password");
    },
    { timeout: 30_000, interval: 200 },
  );
  expect(await removeSource(tray.deps, id)).toBe(true);
  expect(await removeSource(tray.deps, id)).toBe(false);
});
