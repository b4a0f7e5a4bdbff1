import { aMessage } from "@tests/support/mail";
import { address, type Office, passes, setUpOffice, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Decision } from "../../core/deciding/decision";
import { type ConversationId, type FollowUpId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, dateOf, later } from "../../core/kernel/instant";
import { inTransaction } from "../../storage/base/index";
import { deleteConversations, lockBinnedTooLong } from "../../storage/records/index";
import {
  answerConversation,
  callJunkSender,
  decide,
  emptyBins,
  getBin,
  joinConversations,
  openConversation,
  otherMailOf,
  readAttachment,
  receiveMessage,
  search,
  setPuttingAway,
  setUpHours,
  setUpRecords,
  traySettings,
} from "../index.server";

let tray: TestTray;
let office: Office;
let sorrel: RecordId;
let count = 0;

const arrive = async (subject: string, more: Parameters<typeof aMessage>[0] = {}) => {
  passes(tray, 7);
  count += 1;
  const date = dateOf(tray.clock.now).toUTCString();
  const raw = aMessage({ id: `away-${count}@vanehouse.example`, subject, date, ...more });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId<ConversationId>("");
};
const does = async (id: ConversationId, decision: Decision) => {
  passes(tray, 1);
  const done = await decide(tray.deps, office.grant, { ids: [id], seenVersion: null }, decision);
  if (!done.ok) throw new Error(`${decision.kind} was refused: ${done.error.kind}`);
};
const standingOf = async (id: ConversationId) =>
  (await openConversation(tray.deps, office.grant, id))?.row.standing ?? "gone";
const days = (number: number) => {
  tray.clock.now = later(tray.clock.now, number * DAY);
};

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  const [record] = await setUpRecords(tray.deps, [
    { code: "P-26-012", title: "Sorrel case", kind: "project", parentCode: null, closed: false },
  ]);
  sorrel = record?.id ?? trustedId("");
});
afterAll(() => tray.close());

// Above what is cut out of a message and stored by itself.
const attachment = (byte: string) => {
  const lines = Buffer.alloc(30_000, byte)
    .toString("base64")
    .replace(/(.{76})/g, "$1\r\n");
  return {
    headers: { "MIME-Version": "1.0", "Content-Type": 'multipart/mixed; boundary="cut"' },
    body: `--cut\r\nContent-Type: text/plain\r\n\r\nSee the plan.\r\n--cut\r\nContent-Type: application/pdf; name=plan.pdf\r\nContent-Disposition: attachment; filename=plan.pdf\r\nContent-Transfer-Encoding: base64\r\n\r\n${lines}\r\n--cut--\r\n`,
  };
};

describe("the bin", () => {
  it("is emptied of what has lain in it for its term, and of nothing else", async () => {
    const [kept, gone, filed, followed, later30] = [
      await arrive("Kept"),
      await arrive("Gone"),
      await arrive("Filed"),
      await arrive("Followed up"),
      await arrive("Binned later"),
    ];
    await does(filed, { kind: "file", recordId: sorrel, settle: false });
    await does(followed, {
      kind: "follow-up",
      followUpId: trustedId<FollowUpId>(tray.deps.newId()),
      dueAt: null,
      text: "",
      forMember: office.ines.id,
    });
    for (const id of [gone, filed, followed]) await does(id, { kind: "bin" });
    const bin = await getBin(tray.deps, office.grant);
    expect(bin).toMatchObject({ days: 30, goes: 1, stays: 2, takenBack: 0, isUsedAsStorage: false });
    days(15);
    await does(later30, { kind: "bin" });
    expect(await emptyBins(tray.deps)).toBe(0);
    days(15);
    expect(await emptyBins(tray.deps)).toBe(1);
    expect(await Promise.all([kept, gone, filed, followed, later30].map(standingOf))).toEqual([
      "to-sort",
      "gone",
      "bin",
      "bin",
      "bin",
    ]);
    for (const table of ["message", "journal", "thread_link", "reading", "message_search"])
      expect(await tray.ask(`select 1 from ${table} where conversation_id = $1`, [gone])).toEqual([]);
    days(16);
    expect(await emptyBins(tray.deps)).toBe(1);
    expect(await standingOf(later30)).toBe("gone");
  });

  it("takes along what was joined, and lets the same message come in anew", async () => {
    const [whole, part] = [await arrive("Whole"), await arrive("Part")];
    const joined = await joinConversations(tray.deps, office.grant, whole, part);
    expect(joined.ok).toBe(true);
    await does(whole, { kind: "bin" });
    days(31);
    expect(await emptyBins(tray.deps)).toBe(1);
    expect(await tray.ask("select 1 from conversation where id in ($1, $2)", [whole, part])).toEqual([]);
    const again = await arrive("Whole", { id: `away-${count - 1}@vanehouse.example` });
    expect(await standingOf(again)).toBe("to-sort");
  });

  it("gives back the room of what nothing else carries", async () => {
    const blobs = async () => (await tray.ask("select count(*)::int as n from blob"))[0].n as number;
    const before = await blobs();
    const [one, other] = [await arrive("Plan", attachment("a")), await arrive("The same plan", attachment("a"))];
    const alone = await arrive("Another plan", attachment("b"));
    // Three messages, and two files that are stored once each.
    expect(await blobs()).toBe(before + 5);
    for (const id of [one, alone]) await does(id, { kind: "bin" });
    days(31);
    expect(await emptyBins(tray.deps)).toBe(2);
    expect(await blobs()).toBe(before + 2);
    await does(other, { kind: "bin" });
    days(31);
    await emptyBins(tray.deps);
    expect(await blobs()).toBe(before);
  });

  it("loses no byte that comes in again while it is emptied", async () => {
    const raw = async (id: ConversationId) => {
      const message = (await openConversation(tray.deps, office.grant, id))?.messages[0];
      const read = message === undefined ? null : await readAttachment(tray.deps, office.grant, message.id, 0);
      return read === null ? null : Buffer.from(read.content).subarray(0, 3).toString();
    };
    for (let round = 0; round < 8; round += 1) {
      const byte = String.fromCharCode(99 + round);
      const old = await arrive(`Old ${round}`, attachment(byte));
      await does(old, { kind: "bin" });
      days(31);
      const [fresh] = await Promise.all([
        arrive(`Fresh ${round}`, attachment(byte)),
        emptyBins(tray.deps),
        emptyBins(tray.deps),
      ]);
      expect(await standingOf(old)).toBe("gone");
      expect(await raw(fresh)).toBe(byte.repeat(3));
    }
  });

  it("holds up no delivery while it is emptied", async () => {
    const old = await arrive("Going", attachment("p"));
    await does(old, { kind: "bin" });
    days(31);
    let commit = () => {};
    const mayCommit = new Promise<void>((resolve) => {
      commit = resolve;
    });
    const emptying = inTransaction(tray.deps.db, async (trx) => {
      const held = await lockBinnedTooLong(trx, tray.deps.now(), 20);
      const ids = held.map(({ id }) => id);
      await deleteConversations(trx, ids, tray.deps.now());
      await mayCommit;
      return ids;
    });
    expect(await standingOf(await arrive("Meanwhile", attachment("q")))).toBe("to-sort");
    commit();
    expect(await emptying).toContain(old);
  });

  it("passes over bytes that somebody holds, and comes back to them", async () => {
    const old = await arrive("Held", attachment("h"));
    const [{ raw_sha256: sum }] = await tray.ask("select raw_sha256 from message where conversation_id = $1", [old]);
    await does(old, { kind: "bin" });
    days(31);
    await tray.ask("begin");
    await tray.ask("select from blob where sha256 = $1 for key share", [sum]);
    expect(await emptyBins(tray.deps)).toBeGreaterThanOrEqual(1);
    await tray.ask("commit");
    const left = () => tray.ask("select from blob where sha256 = $1", [sum]);
    expect(await left()).toHaveLength(1);
    days(1);
    await emptyBins(tray.deps);
    expect(await left()).toHaveLength(0);
    expect(await tray.ask("select from blob_unswept")).toEqual([]);
  });

  it("leaves alone what somebody takes out at the last moment", async () => {
    for (let round = 0; round < 8; round += 1) {
      const id = await arrive(`Last moment ${round}`);
      await does(id, { kind: "bin" });
      days(31);
      const [taken] = await Promise.all([
        decide(tray.deps, office.grant, { ids: [id], seenVersion: null }, { kind: "restore" }),
        emptyBins(tray.deps),
      ]);
      // Whoever was first has it; the other is told, or finds nothing to do.
      expect(await standingOf(id)).toBe(taken.ok ? "to-sort" : "gone");
      if (!taken.ok) expect(taken.error).toEqual({ kind: "no-such-conversation" });
    }
  });

  it("keeps everything where it has no term", async () => {
    const id = await arrive("For ever");
    await does(id, { kind: "bin" });
    const lead = { ...office.grant, role: "lead" } as typeof office.grant;
    const { hours } = await traySettings(tray.deps, office.grant);
    const never = { binDays: null, junkDays: null, filesFirst: false };
    const leadsOnly = { error: { kind: "leads-only" } };
    expect(await setUpHours(tray.deps, office.grant, hours)).toMatchObject(leadsOnly);
    expect(await setPuttingAway(tray.deps, office.grant, never)).toMatchObject(leadsOnly);
    expect((await setUpHours(tray.deps, lead, { ...hours, holidays: ["2026-12-25"] })).ok).toBe(true);
    expect((await setPuttingAway(tray.deps, lead, never)).ok).toBe(true);
    expect(await traySettings(tray.deps, office.grant)).toMatchObject({
      binDays: null,
      hours: { holidays: ["2026-12-25"] },
    });
    days(3_000);
    expect(await emptyBins(tray.deps)).toBe(0);
    expect(await standingOf(id)).toBe("bin");
    expect((await getBin(tray.deps, office.grant)).days).toBeNull();
    await setPuttingAway(tray.deps, lead, { ...never, binDays: 30 });
  });

  it("tells when things are put there to be kept", async () => {
    const used = [await arrive("A"), await arrive("B"), await arrive("C"), await arrive("D")];
    for (const id of used) await does(id, { kind: "bin" });
    for (const id of used.slice(0, 2)) await does(id, { kind: "restore" });
    expect(await getBin(tray.deps, office.grant)).toMatchObject({ takenBack: 2, isUsedAsStorage: false });
    const answered = await answerConversation(tray.deps, office.grant, office.ines, used[2] as ConversationId, {
      to: [{ name: "", address: address("vane@vanehouse.example") }],
      cc: [],
      subject: "Re: C",
      html: "<p>Yes</p>",
      after: { kind: "settle" },
    });
    expect(answered.ok).toBe(true);
    expect(await getBin(tray.deps, office.grant)).toMatchObject({ takenBack: 3, isUsedAsStorage: true });
    // Bringing something back from elsewhere, or answering what is not in it, is nothing to the bin.
    const junk = await arrive("E");
    await does(junk, { kind: "junk" });
    await does(junk, { kind: "restore" });
    expect(await getBin(tray.deps, office.grant)).toMatchObject({ takenBack: 3 });
    days(31);
    expect(await getBin(tray.deps, office.grant)).toMatchObject({ takenBack: 0, isUsedAsStorage: false });
  });

  it("is not searched unless one asks for it", async () => {
    const [open, binned, junk] = [
      await arrive("Zimbelstern one"),
      await arrive("Zimbelstern two"),
      await arrive("Zimbelstern three"),
    ];
    await does(binned, { kind: "bin" });
    await does(junk, { kind: "junk" });
    const found = async (where?: "everywhere") =>
      (await search(tray.deps, office.grant, "zimbelstern", undefined, where)).map(({ row }) => row.id).toSorted();
    expect(await found()).toEqual([open]);
    expect(await found("everywhere")).toEqual([open, binned, junk].toSorted());
  });
});

describe("junk", () => {
  const PRIZE = "Prize Office <winner@luckypost.example>";
  it("offers the sender's other mail, and sends what comes straight to itself", async () => {
    const [first] = [await arrive("Won", { from: PRIZE }), await arrive("Won again", { from: PRIZE })];
    await does(first, { kind: "junk" });
    const offer = () => otherMailOf(tray.deps, office.grant, "winner@luckypost.example");
    expect(await offer()).toEqual({ address: "winner@luckypost.example", open: 1, isJunkSender: false });
    expect((await callJunkSender(tray.deps, office.grant, "Winner@LuckyPost.example", true)).ok).toBe(true);
    expect(await offer()).toMatchObject({ isJunkSender: true });
    expect((await traySettings(tray.deps, office.grant)).junkSenders).toMatchObject([
      { address: "winner@luckypost.example", by: office.ines.id },
    ]);
    expect(await standingOf(await arrive("Won thrice", { from: PRIZE }))).toBe("junk");
    expect(await standingOf(await arrive("Nothing won"))).toBe("to-sort");
    await callJunkSender(tray.deps, office.grant, "winner@luckypost.example", false);
    expect(await standingOf(await arrive("Won at last", { from: PRIZE }))).toBe("to-sort");
  });

  it("is not for readers to call, nor for what is no sender of ours", async () => {
    const call = async (text: string, grant = office.grant) => {
      const done = await callJunkSender(tray.deps, grant, text, true);
      return done.ok ? "done" : done.error.kind;
    };
    expect(await call("winner@luckypost.example", office.reader)).toBe("readers-only-read");
    expect(await call("nobody at all")).toBe("no-such");
    expect(await call("office@ottermoor.example")).toBe("no-such");
    expect(await otherMailOf(tray.deps, office.grant, "")).toBeNull();
  });
});
