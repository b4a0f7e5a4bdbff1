import { inEnglish } from "@tests/support/english";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { Member } from "../../storage/access/index";
import { saveReplyDefault } from "../reading/reply-defaults";
import { disable, enable, setPassword } from "./member-access";
import { changeOwnPassword, endOwnSessions, ownSessions } from "./own-account";
import { choosePreference, preferencesOf } from "./settings";
import {
  demoColleagues,
  forgetFailures,
  hashPassword,
  signIn,
  signInToDemo,
  signOut,
  whoComesIn,
  whoIs,
} from "./sign-in";

let tray: TestTray;
let office: Office;
beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
});
afterAll(() => tray.close());

it("keeps passwords by a memory-hard function", async () => {
  expect(await hashPassword("x")).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
});

it("lets in with the right password, whatever the case of the name, until one signs out", async () => {
  const session = await signIn(tray.deps, "INES", "ottermoor");
  const token = session.ok ? session.value.token : "";
  expect((await whoIs(tray.deps, token))?.name).toBe("Ines Varga");
  await signOut(tray.deps, token);
  expect(await whoIs(tray.deps, token)).toBeNull();
});

it("ends a session after two weeks", async () => {
  const session = await signIn(tray.deps, "ines", "ottermoor");
  passes(tray, 15 * 24 * 60);
  expect(await whoIs(tray.deps, session.ok ? session.value.token : "")).toBeNull();
});

it("does not tell a wrong name from a wrong password", async () => {
  const refused = { ok: false, error: { kind: "wrong-name-or-password" } };
  expect(await signIn(tray.deps, "ines", "wrong")).toEqual(refused);
  expect(await signIn(tray.deps, "nobody", "ottermoor")).toEqual(refused);
});

it("comes with what one chose for the pages, as it was then", async () => {
  const session = await signIn(tray.deps, "ines", "ottermoor");
  const token = session.ok ? session.value.token : "";
  const before = await whoComesIn(tray.deps, token);
  await choosePreference(tray.deps, office.grant, "after-decision", "list");
  await saveReplyDefault(tray.deps.db, office.ines.id, address("a@vanehouse.example"), {
    after: "settle",
    whom: "any",
  });
  const after = await whoComesIn(tray.deps, token);
  const afterDecision = async (entered: typeof before) =>
    (await preferencesOf({ ...tray.deps, chosen: entered?.chosen ?? null }, office.grant)).afterDecision;
  expect([await afterDecision(before), await afterDecision(after), await afterDecision(null)]).toEqual([
    "next",
    "list",
    "list",
  ]);
  // Somebody else's are looked up, and what is no setting of pages does not come along.
  expect((await preferencesOf({ ...tray.deps, chosen: after?.chosen ?? null }, office.tobiasGrant)).afterDecision).toBe(
    "next",
  );
  expect([...(after?.chosen.settings.keys() ?? [])]).toEqual(["after-decision"]);
});

describe("whoever guesses", () => {
  const waits: number[] = [];
  const from = (address: string, pause: (ms: number) => Promise<void> = async (ms) => void waits.push(ms)) => ({
    ...tray.deps,
    pause,
    from: { address, device: "a script" },
  });
  beforeEach(() => {
    passes(tray, 60);
    waits.length = 0;
  });

  it("waits longer each time, and locks nobody out: the right password is in after five seconds at the most", async () => {
    for (let tries = 0; tries < 30; tries += 1) await signIn(from(`10.0.0.${tries}`), "tobias", "guess");
    expect(waits.slice(0, 7)).toEqual([0, 0, 0, 0, 0, 250, 500]);
    expect((await signIn(from("192.168.1.1"), "tobias", "ottermoor")).ok).toBe(true);
    expect(waits.at(-1)).toBe(5_000);
  });

  it("tries many names from one place and waits there, nobody else", async () => {
    for (let tries = 0; tries < 20; tries += 1) await signIn(from("10.0.0.1"), `name${tries}`, "guess");
    expect(waits.at(-1)).toBe(30_000);
    expect((await signIn(from("192.168.1.1"), "tobias", "ottermoor")).ok).toBe(true);
    expect(waits.at(-1)).toBe(0);
  });

  it("is refused where too many of one place wait already", async () => {
    const asleep = from("10.9.9.9", () => new Promise<void>(() => {}));
    for (let tries = 0; tries < 4; tries += 1) void signIn(asleep, "tobias", "guess");
    const refused = { ok: false, error: { kind: "too-many-tries" } };
    expect(await signIn(from("10.9.9.9"), "tobias", "ottermoor")).toEqual(refused);
    expect((await signIn(from("10.9.9.8"), "tobias", "ottermoor")).ok).toBe(true);
  });

  it("is forgotten after a day", async () => {
    await signIn(from("10.0.0.1"), "tobias", "guess");
    passes(tray, 25 * 60);
    await forgetFailures(tray.deps);
    expect(await tray.ask("select from sign_in_failure")).toEqual([]);
  });
});

it("ends a session that lies idle", async () => {
  const session = await signIn(tray.deps, "ines", "ottermoor");
  const token = session.ok ? session.value.token : "";
  for (let day = 0; day < 4; day += 1) {
    passes(tray, 2 * 24 * 60);
    expect((await whoIs(tray.deps, token))?.name).toBe("Ines Varga");
  }
  passes(tray, 3 * 24 * 60 + 1);
  expect(await whoIs(tray.deps, token)).toBeNull();
});

it("shows where one is signed in, and ends one, all others, or all others with a change of the password", async () => {
  const from = (device: string) => ({ ...tray.deps, from: { address: "10.0.0.1", device } });
  const tokens: string[] = [];
  for (const device of ["one", "two", "three"]) {
    const session = await signIn(from(device), "rook", "ottermoor");
    tokens.push(session.ok ? session.value.token : "");
    passes(tray, 2);
  }
  const [one = "", two = "", three = ""] = tokens;
  const rook = (await whoIs(tray.deps, one)) as Member;
  const listed = await ownSessions(tray.deps, rook, one);
  expect(listed.map(({ device, isOwn }) => [device, isOwn])).toEqual([
    ["one", true],
    ["three", false],
    ["two", false],
  ]);
  const idOf = (device: string) => listed.find((session) => session.device === device)?.id ?? "";
  expect(await endOwnSessions(tray.deps, rook, one, idOf("two"))).toBe(true);
  expect(await endOwnSessions(tray.deps, rook, one, idOf("two"))).toBe(false);
  expect(await whoIs(tray.deps, two)).toBeNull();
  const change = (old: string, next: string) => changeOwnPassword(from("one"), rook, one, { old, next });
  expect(inEnglish(await change("wrong", "bellows and reeds"))).toEqual({
    ok: false,
    error: { old: "That is not your password." },
  });
  expect(inEnglish(await change("ottermoor", "short"))).toMatchObject({
    ok: false,
    error: { new: expect.any(String) },
  });
  expect((await whoIs(tray.deps, three))?.name).toBe("Rook Reader");
  expect(await change("ottermoor", "bellows and reeds")).toEqual({ ok: true, value: null });
  expect([await whoIs(tray.deps, three), (await whoIs(tray.deps, one))?.name]).toEqual([null, "Rook Reader"]);
  expect((await signIn(tray.deps, "rook", "ottermoor")).ok).toBe(false);
  expect((await signIn(tray.deps, "rook", "bellows and reeds")).ok).toBe(true);
  await endOwnSessions(tray.deps, rook, one, null);
  expect(await ownSessions(tray.deps, rook, one)).toHaveLength(1);
});

it("lets an operator set a password, disable and enable, each at once", async () => {
  const told: string[] = [];
  const deps = { ...tray.deps, publishAccess: (id: string) => void told.push(id) };
  const session = await signIn(deps, "ines", "ottermoor");
  const token = session.ok ? session.value.token : "";
  expect((await setPassword(deps, "INES", "reeds and bellows")).ok).toBe(true);
  expect(await whoIs(deps, token)).toBeNull();
  expect((await signIn(deps, "ines", "ottermoor")).ok).toBe(false);
  const next = await signIn(deps, "ines", "reeds and bellows");
  expect((await disable(deps, "ines")).ok).toBe(true);
  expect(await whoIs(deps, next.ok ? next.value.token : "")).toBeNull();
  expect((await signIn(deps, "ines", "reeds and bellows")).ok).toBe(false);
  expect((await enable(deps, "ines")).ok).toBe(true);
  expect((await signIn(deps, "ines", "reeds and bellows")).ok).toBe(true);
  expect(told).toHaveLength(3);
  expect(await disable(deps, "nobody")).toEqual({ ok: false, error: { kind: "no-such-member" } });
});

it("has one-click colleagues in the demo only", async () => {
  expect((await signInToDemo(tray.deps, "ines")).ok).toBe(true);
  const real = { ...tray.deps, demo: false };
  expect([await demoColleagues(real), (await signInToDemo(real, "ines")).ok]).toEqual([[], false]);
});
