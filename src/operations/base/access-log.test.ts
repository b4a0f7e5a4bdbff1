import { type Desk, done, only, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { passes, setUpParts, testTray } from "@tests/support/test-database";
import { beforeEach, describe, expect, it } from "vitest";
import { DAY } from "../../core/kernel/instant";
import { exportConversation } from "../exchange/export-mail";
import {
  changeRecord,
  changeRole,
  exportCategories,
  exportRecords,
  orderZipExport,
  removeAccess,
  restoreAccess,
  signIn,
  signOut,
} from "../index.server";
import { acceptInvitation, invite, takeInvitationBack } from "../people/invitations";
import { disable, enable, setPassword } from "../people/member-access";
import { changeOwnPassword, endOwnSessions } from "../people/own-account";
import { forgetAccess, getAccessLog } from "./access-log";

let desk: Desk;
beforeEach(async () => {
  desk = await setUpDesk(await testTray());
  return () => desk.tray.close();
});

const EVERYTHING = { group: null, memberId: null, before: null } as const;
const looked = async (filter: Partial<Parameters<typeof getAccessLog>[2]> = {}, who = desk.lead) =>
  done(await getAccessLog(desk.tray.deps, who, { ...EVERYTHING, ...filter }));
const said = async (filter: Parameters<typeof looked>[0] = {}, who = desk.lead) =>
  inEnglish(await looked(filter, who))
    .events.map((event) => `${event.who} ${event.did}`)
    .toReversed();
const from = (device: string) => ({ ...desk.tray.deps, from: { address: "192.0.2.7", device } });

describe("the access log", () => {
  it("keeps who signs in and out, fails to, and changes passwords, from where and with what", async () => {
    const deps = from("Firefox on Linux");
    await signIn(deps, "mara", "wrong");
    await signIn(deps, "a secret typed into the wrong field", "wrong");
    const { token } = done(await signIn(deps, "mara", "ottermoor"));
    await changeOwnPassword(deps, desk.mara, token, { old: "wrong", next: "bellows and reeds" });
    await changeOwnPassword(deps, desk.mara, token, { old: "ottermoor", next: "bellows and reeds" });
    await endOwnSessions(deps, desk.mara, token, null);
    await signOut(deps, token);
    await signOut(deps, token);
    expect(await said()).toEqual([
      "Somebody failed to sign in as mara",
      "Somebody failed to sign in by a name that nobody has",
      `${desk.mara.name} signed in`,
      `${desk.mara.name} gave a wrong password when asked for their own`,
      `${desk.mara.name} changed their password`,
      `${desk.mara.name} ended sessions elsewhere`,
      `${desk.mara.name} signed out`,
    ]);
    for (const event of (await looked()).events)
      expect(inEnglish(event)).toMatchObject({ address: "192.0.2.7", device: "Firefox on Linux" });
  });

  it("keeps who changes rights, the operator among them", async () => {
    const { deps } = desk.tray;
    const { token } = done(await invite(deps, desk.lead, "reader"));
    done(await invite(deps, desk.lead, "lead"));
    const [open] = await desk.tray.ask("select id from invitation where role = 'lead'");
    done(await takeInvitationBack(deps, desk.lead, open?.id as never));
    const runa = {
      signInName: "runa",
      name: "Runa Holt",
      initials: "RH",
      password: "bellows and reeds",
      timeZone: "UTC",
    };
    done(await acceptInvitation(deps, token, runa));
    done(await changeRole(deps, desk.lead, desk.mara.id, "lead"));
    done(await changeRole(deps, desk.lead, desk.mara.id, "lead"));
    done(await removeAccess(deps, desk.lead, desk.tobias.id, { kind: "nobody" }));
    done(await restoreAccess(deps, desk.lead, desk.tobias.id));
    await setPassword(deps, "tobias", "reeds and bellows");
    await disable(deps, "tobias");
    await enable(deps, "tobias");
    const [ines, tobias] = [desk.ines.name, desk.tobias.name];
    expect(await said()).toEqual([
      `${ines} made an invitation for a reader`,
      `${ines} made an invitation for a lead`,
      `${ines} took an invitation back`,
      "Runa Holt joined by an invitation as reader",
      `${ines} changed ${desk.mara.name} from member to lead`,
      `${ines} removed the access of ${tobias}`,
      `${ines} restored the access of ${tobias}`,
      `The operator changed the password of ${tobias}`,
      `The operator disabled ${tobias}`,
      `The operator restored the access of ${tobias}`,
    ]);
  });

  it("keeps who takes mail and tables out, and nothing where there was nothing to take", async () => {
    const { deps } = desk.tray;
    const id = await desk.arrive();
    await exportConversation(deps, desk.tobiasGrant, id, "mbox");
    await exportConversation(deps, desk.tobiasGrant, deps.newId() as never, "mbox");
    await exportRecords(deps, desk.tobiasGrant);
    await exportCategories(deps, desk.tobiasGrant);
    const record = await desk.opensRecord("Old Wyke");
    const form = { format: "eml", withNotes: true } as const;
    done(await orderZipExport(deps, desk.tobiasGrant, { recordId: record.id, text: "", everywhere: false }, form));
    expect(await said({ group: "exports" })).toEqual([
      expect.stringMatching(/exported a conversation with 1 message \(mbox\)/),
      expect.stringMatching(/exported the register, 0 records \(CSV\)/),
      expect.stringMatching(/exported the categories, \d+ of them \(CSV\)/),
      expect.stringMatching(/ordered a ZIP of mail/),
    ]);
  });

  it("names a record only to those who may know of it", async () => {
    const { deps } = desk.tray;
    const record = await desk.opensRecord("Old Wyke");
    const { typeId, title, parentId, responsibleId, note, version } = record;
    const draft = { typeId, title, parentId, responsibleId, note, addresses: "", access: only(desk.ines) };
    expect((await changeRecord(deps, desk.lead, record.id, { ...draft, version })).ok).toBe(true);
    done(await changeRole(deps, desk.lead, desk.mara.id, "lead"));
    const mara = await desk.grantNow(desk.mara);
    const ofRecords = (words: string) => words.includes("who has access to");
    expect((await said()).filter(ofRecords)).toEqual([`${desk.ines.name} changed who has access to ${record.code}`]);
    expect((await said({}, mara)).filter(ofRecords)).toEqual([`${desk.ines.name} changed who has access to a record`]);
  });

  it("is for those who lead, about their own trays and members", async () => {
    const { deps } = desk.tray;
    expect(refusal(await getAccessLog(deps, desk.maraGrant, EVERYTHING))).toBe("leads-only");
    expect(refusal(await getAccessLog(deps, desk.reader, EVERYTHING))).toBe("leads-only");
    const { grant } = await setUpParts(deps);
    done(await signIn(deps, "mara", "ottermoor"));
    done(await invite(deps, desk.lead, "reader"));
    expect(await said({}, grant)).toEqual([]);
    expect(await said()).toHaveLength(2);
  });

  it("is filtered by kind and member, goes on where a page ended, and is forgotten after its term", async () => {
    const { deps } = desk.tray;
    for (let time = 0; time < 65; time += 1) {
      await signIn(deps, "mara", time % 2 === 0 ? "ottermoor" : "wrong");
      passes(desk.tray, 20);
    }
    expect(await said({ group: "failures" })).toHaveLength(32);
    expect(await said({ memberId: desk.tobias.id })).toEqual([]);
    const first = await looked({ memberId: desk.mara.id });
    expect([first.events.length, first.hasMore, first.keptMs]).toEqual([60, true, 180 * DAY]);
    const last = first.events.at(-1);
    const second = await looked({ before: { at: last?.at as never, id: last?.id ?? "" } });
    expect([second.events.length, second.hasMore]).toEqual([5, false]);
    expect(new Set([...first.events, ...second.events].map(({ id }) => id)).size).toBe(65);
    passes(desk.tray, 180 * 24 * 60 - 60);
    await forgetAccess(deps);
    expect(await said()).toHaveLength(3);
  });
});
