import { type Desk, setUpDesk } from "@tests/support/desk";
import { type Visitor, visitor } from "@tests/support/pages";
import { testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { loader as accessLogPage } from "~/web/routes/people/access-log";
import { action as members, loader as membersPage } from "~/web/routes/people/members";

let desk: Desk;
let ines: Visitor;
let mara: Visitor;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  ines = visitor(tray.deps, desk.ines, desk.lead);
  mara = visitor(tray.deps, desk.mara, desk.maraGrant);
});
afterAll(() => desk.tray.close());

describe("members who were shut out", () => {
  it("are let in again, and found in the access log, by who leads", async () => {
    expect((await ines.posts(members, { do: "shut-out", member: desk.tobias.id, to: "nobody" })).data.ok).toBe(true);
    expect((await ines.looksAt(membersPage)).disabled).toMatchObject([{ name: "Tobias Lund", since: "today" }]);
    expect((await mara.looksAt(membersPage)).disabled).toEqual([]);
    expect((await mara.posts(members, { do: "let-in", member: desk.tobias.id })).status).toBe(409);
    const back = await ines.posts(members, { do: "let-in", member: desk.tobias.id });
    expect(back.data).toMatchObject({ ok: true, said: "Access restored" });
    const { log } = await ines.looksAt(accessLogPage, {}, "kind=rights");
    expect(log?.events.map(({ who, did, from }) => [who, did, from])).toEqual([
      ["Ines Varga", "restored the access of Tobias Lund", "10.0.0.1, a test"],
      ["Ines Varga", "removed the access of Tobias Lund", "10.0.0.1, a test"],
    ]);
    expect(log).toMatchObject({ before: null, keptDays: 180 });
    expect((await ines.looksAt(accessLogPage, {}, `kind=exports&member=${desk.mara.id}&before=x`)).log?.events).toEqual(
      [],
    );
    expect((await mara.looksAt(accessLogPage)).log).toBeNull();
  });
});
