import { passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { demoColleagues, hashPassword, signIn, signInToDemo, signOut, whoIs } from "./sign-in";

let tray: TestTray;
beforeAll(async () => {
  tray = await testTray();
  await setUpOffice(tray.deps);
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

it("makes whoever guesses wait", async () => {
  for (let tries = 0; tries < 8; tries += 1) await signIn(tray.deps, "tobias", "guess");
  expect(await signIn(tray.deps, "tobias", "ottermoor")).toEqual({ ok: false, error: { kind: "too-many-tries" } });
  passes(tray, 16);
  expect((await signIn(tray.deps, "tobias", "ottermoor")).ok).toBe(true);
});

it("has one-click colleagues in the demo only", async () => {
  expect((await signInToDemo(tray.deps, "ines")).ok).toBe(true);
  const real = { ...tray.deps, demo: false };
  expect([await demoColleagues(real), (await signInToDemo(real, "ines")).ok]).toEqual([[], false]);
});
