import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type ConversationId, type ExpectationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, HOUR, later } from "../../core/kernel/instant";
import type { StandingKind } from "../../core/standing/standing";
import { addMember, decide, receiveMessage, setUpRecords, setUpTray, traysOf } from "../../operations/index.server";
import { conversationRow, markRead, markReadUpTo } from "../conversation/conversation-page";
import { conversationsOnRecord } from "../records/record-page";
import { filedCounts, recordByCode, recordsLike } from "../records/records";
import { firstRows } from "./sheet-lists";
import { standingCounts } from "./standing-counts";

let tray: TestTray;
let office: Office;
let count = 0;

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
});
afterAll(() => tray.close());

async function arrive(subject: string, to = "office@ottermoor.example"): Promise<ConversationId> {
  count += 1;
  const date = new Date(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `list-${count}@x.example`, subject, to, date });
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients: [address(to)] });
  return kept?.conversationId ?? trustedId("");
}
const does = (id: ConversationId, decision: Decision) =>
  decide(tray.deps, office.grant, { ids: [id], seenVersion: null }, decision);
const subjects = async (standing: StandingKind, limit = 50) =>
  (
    await firstRows(
      tray.deps.db,
      office.grant,
      { scope: standing, filter: {}, ageBands: [] },
      { order: "date", reversed: false },
      { grouping: null, bands: [] },
      [{ key: "", limit }],
    )
  )
    .get("")
    ?.map(({ subject }) => subject);

describe("a standing's list", () => {
  it("has the newest message first, and no more than asked for", async () => {
    for (const subject of ["first", "second", "third"]) {
      await arrive(subject);
      passes(tray, 10);
    }
    expect(await subjects("to-sort")).toEqual(["third", "second", "first"]);
    expect(await subjects("to-sort", 2)).toEqual(["third", "second"]);
  });

  it("shows what is unread to the one who has not read it", async () => {
    const id = await arrive("unread");
    const unreadFor = async (grant: Office["grant"]) => (await conversationRow(tray.deps.db, grant, id))?.unread;
    await markRead(tray.deps.db, office.ines.id, id, tray.clock.now);
    expect([await unreadFor(office.grant), await unreadFor(office.tobiasGrant)]).toEqual([false, true]);
    await markReadUpTo(tray.deps.db, office.tobias.id, tray.clock.now);
    expect(await unreadFor(office.tobiasGrant)).toBe(false);
  });

  it("has nothing of other trays", async () => {
    await setUpTray(tray.deps, {
      slug: "parts",
      name: "Parts",
      timeZone: "UTC",
      addresses: [address("parts@ottermoor.example")],
    });
    passes(tray, 1);
    const id = await arrive("for parts", "parts@ottermoor.example");
    expect(await subjects("to-sort")).not.toContain("for parts");
    expect(await conversationRow(tray.deps.db, office.grant, id)).toBeNull();
  });

  it("starts a conversation of its own when References name one of another tray", async () => {
    await arrive("in office");
    const raw = aMessage({
      id: "across@x.example",
      to: "parts@ottermoor.example",
      references: `<list-${count}@x.example>`,
    });
    const recipients = [address("parts@ottermoor.example")];
    const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    expect(kept?.outcome).toBe("started");
  });

  it("keeps a message to two trays once in each", async () => {
    const raw = aMessage({ id: "both@x.example", subject: "to both" });
    const recipients = [address("parts@ottermoor.example"), address("office@ottermoor.example")];
    const twice = [
      await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients }),
      await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients }),
    ];
    expect(twice.map((kept) => kept.map(({ outcome }) => outcome))).toEqual([
      ["started", "started"],
      ["known-already", "known-already"],
    ]);
    expect(new Set(twice.flat().map(({ conversationId }) => conversationId)).size).toBe(2);
  });
});

describe("the flow gauge", () => {
  const gauge = async () => {
    const dayStart = later(tray.clock.now, -9 * HOUR);
    const segments = await standingCounts(tray.deps.db, office.grant, tray.clock.now, dayStart);
    return (standing: string) => segments.find((segment) => segment.standing === standing);
  };

  it("counts each open standing with its ages", async () => {
    const before = (await gauge())("our-move")?.count ?? 0;
    const old = await arrive("old");
    await does(old, { kind: "assign", ownerId: office.ines.id });
    const since = tray.clock.now;
    passes(tray, 4 * 24 * 60);
    await does(await arrive("young"), { kind: "assign", ownerId: office.ines.id });
    const segment = (await gauge())("our-move");
    expect(segment).toMatchObject({ count: before + 2, oldestSince: since, overdue: 0 });
    expect([segment?.ages[0], segment?.ages[2]]).toEqual([1, before + 1]);
  });

  it("counts what is overdue, and says what wakes next", async () => {
    const until = later(tray.clock.now, DAY);
    const expectationId = trustedId<ExpectationId>(tray.deps.newId());
    await does(await arrive("awaited"), { kind: "expect", until, expectationId });
    await does(await arrive("resting"), { kind: "rest", until: later(tray.clock.now, 9 * DAY) });
    expect([(await gauge())("waiting")?.overdue, (await gauge())("resting")?.nextWake]).toEqual([
      0,
      later(tray.clock.now, 9 * DAY),
    ]);
    passes(tray, 2 * 24 * 60);
    expect((await gauge())("waiting")?.overdue).toBe(1);
  });

  it("counts of settled ones those of today, and the days before as bars", async () => {
    await does(await arrive("yesterday"), { kind: "settle" });
    passes(tray, 24 * 60);
    await does(await arrive("today"), { kind: "settle" });
    expect((await gauge())("settled")).toMatchObject({ count: 1, ages: [1, 1, 0, 0, 0] });
  });
});

describe("records", () => {
  let sorrel: RecordId;
  beforeAll(async () => {
    const record = (code: string, title: string, closed = false) => {
      const kind = code.startsWith("C") ? ("client" as const) : ("project" as const);
      return { code, title, closed, kind, parentCode: null };
    };
    const made = await setUpRecords(tray.deps, [
      record("C-001", "Abbey of Sorrel"),
      record("P-26-001", "Sorrel case, 100 % oak"),
      record("P-24-001", "Old Wyke", true),
    ]);
    sorrel = made[1]?.id ?? trustedId("");
  });
  const codes = async (text: string) =>
    (await recordsLike(tray.deps.db, office.grant, text, 50)).map(({ code }) => code);

  it.each<[string, string[]]>([
    ["", ["C-001", "P-26-001", "P-24-001"]],
    ["sorrel", ["P-26-001", "C-001"]],
    ["p-2", ["P-26-001", "P-24-001"]],
    ["100 %", ["P-26-001"]],
    ["%", ["P-26-001"]],
    ["_", []],
    ["\\", []],
  ])("are found by %j, open ones first, then what begins with it", async (text, found) =>
    expect(await codes(text)).toEqual(found),
  );

  it("are found by their code, or not", async () => {
    expect((await recordByCode(tray.deps.db, office.grant, "C-001"))?.title).toBe("Abbey of Sorrel");
    expect(await recordByCode(tray.deps.db, office.grant, "c-002")).toBeNull();
  });

  const all = { query: { terms: [] }, most: 10 };

  it("show what is filed to those only who may look into its tray", async () => {
    const id = await arrive("filed");
    await does(id, { kind: "file", recordId: sorrel, settle: false });
    expect((await conversationsOnRecord(tray.deps.db, office.grant, sorrel, all)).map((row) => row.id)).toEqual([id]);
    expect((await filedCounts(tray.deps.db, office.grant.tray.id)).get(sorrel)).toMatchObject({ filed: 1, open: 1 });

    const member = {
      signInName: "else",
      name: "Somebody Else",
      initials: "SE",
      role: "member",
      timeZone: "UTC",
    } as const;
    const added = await addMember(tray.deps, { ...member, password: "elsewhere", trays: ["parts"] });
    const [elsewhere] = added.ok ? await traysOf(tray.deps, added.value) : [];
    if (elsewhere === undefined) throw new Error("no grant");
    expect(await conversationsOnRecord(tray.deps.db, elsewhere, sorrel, all)).toEqual([]);
    expect((await filedCounts(tray.deps.db, elsewhere.tray.id)).size).toBe(0);
  });
});
