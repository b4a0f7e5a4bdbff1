import { createHash } from "node:crypto";
import { type Desk, done, only, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessageWithFiles } from "@tests/support/mail";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type ConversationId, type PolicyId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import type { RetentionPolicy } from "../../core/retention/policy";
import {
  addDocument,
  bearPolicy,
  closeRecord,
  decide,
  disposeByItself,
  disposeOf,
  editPolicy,
  examine,
  getTypes,
  holdRecord,
  importRecords,
  keepLonger,
  lookAtRetention,
  openConversation,
  previewDisposal,
  receiveMessage,
  recordOfCode,
  releaseRecord,
  removePolicy,
  retentionOf,
  search,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let aDay: PolicyId;

const policy = (name: string, given: Partial<RetentionPolicy> = {}) =>
  editPolicy(tray.deps, desk.lead, {
    id: null,
    name,
    period: "P30D",
    countsFrom: "closing",
    endsIn: "review",
    ...given,
  });
const days = (count: number) => {
  tray.clock.now = later(tray.clock.now as Instant, count * DAY);
};

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  aDay = done(await policy("A month")).id;
});
afterAll(() => tray.close());

const opens = async (title: string, given: { readonly parentId?: RecordId; readonly hidden?: true } = {}) => {
  const access = given.hidden === undefined ? null : only(desk.ines);
  const record = await desk.opensRecord(title, { parentId: given.parentId ?? null, access });
  done(await bearPolicy(tray.deps, desk.lead, "record", record.id, aDay));
  return record;
};
let letters = 0;
const arrives = async (subject: string, files: readonly string[] = ["plan.txt"]): Promise<ConversationId> => {
  letters += 1;
  const raw = aMessageWithFiles({ id: `letter${letters}@x.example`, subject }, files);
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId<ConversationId>("");
};
const files = (ids: readonly ConversationId[], recordId: RecordId) =>
  desk.does(desk.lead, ids, { kind: "file", recordId, settle: true });
const closes = async ({ id }: { readonly id: RecordId }) => done(await closeRecord(tray.deps, desk.lead, id, true));
const preview = (id: RecordId) => previewDisposal(tray.deps, desk.lead, id);
const disposes = async (id: RecordId, previewId?: string) =>
  disposeOf(tray.deps, desk.lead, desk.ines, id, previewId ?? done(await preview(id)).previewId);
const counts = async () => {
  const [row] = await tray.ask(
    "select (select count(*)::int from conversation) as conversations, (select count(*)::int from message) as messages, (select count(*)::int from blob) as blobs",
  );
  return row as { conversations: number; messages: number; blobs: number };
};
const isThere = async (id: ConversationId) => (await openConversation(tray.deps, desk.lead, id, "ahead")) !== null;

describe("a record whose term is over", () => {
  it("goes with everything on it alone, as it was shown, and a certificate says what went", async () => {
    const before = await counts();
    const record = await opens("Vane House");
    const ids = [await arrives("Unmistakable bellows"), await arrives("Another", ["plan.txt", "frame.txt"])];
    await files(ids, record.id);
    const put = { name: "drawing.txt", contentType: "text/plain", content: Buffer.from("A drawing.") };
    done(await addDocument(tray.deps, desk.lead, desk.ines, record, put));
    expect(await search(tray.deps, desk.lead, "unmistakable")).toHaveLength(1);
    await closes(record);
    expect(refusal(await preview(record.id))).toBe("not-due");
    days(31);
    const { previewId, named } = done(await preview(record.id));
    expect(named).toMatchObject({ open: 0, elsewhere: [], messages: 2, documents: 4 });
    expect(named.goes.map(({ subject }) => subject).toSorted()).toEqual(["Another", "Unmistakable bellows"]);
    const rows = await tray.ask(
      "select id::text, encode(raw_sha256, 'hex') as sha256 from message where conversation_id = any($1) union all select id::text, encode(sha256, 'hex') from record_document order by 1",
      [ids],
    );
    const certificate = done(await disposes(record.id, previewId));
    expect(certificate).toMatchObject({
      code: record.code,
      title: "Vane House",
      kind: "client",
      byName: "Ines Varga",
      conversations: 2,
      elsewhere: 0,
      messages: 2,
      documents: 4,
      why: expect.stringContaining("30 days after its closing by its own policy, A month"),
      digest: createHash("sha256")
        .update(rows.map(({ id, sha256 }) => `${id} ${sha256}`).join("\n"))
        .digest("hex"),
    });
    expect(await counts()).toEqual(before);
    expect(await search(tray.deps, desk.lead, "unmistakable")).toEqual([]);
    expect(await recordOfCode(tray.deps, desk.lead, record.code)).toBeNull();
    expect((await lookAtRetention(tray.deps, desk.lead)).certificates[0]).toEqual(certificate);
    const table = await importRecords(tray.deps, desk.lead, `code,title,type\n${record.code},Again,Client`, false);
    expect(inEnglish(done(table))).toMatchObject([
      { kind: "problem", problem: expect.stringContaining("is not given again") },
    ]);
    const diagnosis = await examine(tray.deps);
    expect(diagnosis).toMatchObject({ differences: [], messagesWithoutRaw: 0, countsAstray: 0, lostCategories: 0 });
  });

  it("does not go otherwise than it was shown, nor unshown, nor to who does not lead", async () => {
    const record = await opens("Shown");
    const id = await arrives("First");
    await files([id], record.id);
    await closes(record);
    days(31);
    expect(refusal(await disposes(record.id, trustedId<PolicyId>(aDay)))).toBe("not-as-shown");
    expect(refusal(await previewDisposal(tray.deps, desk.maraGrant, record.id))).toBe("leads-only");
    const { previewId } = done(await preview(record.id));
    expect(refusal(await disposeOf(tray.deps, desk.maraGrant, desk.mara, record.id, previewId))).toBe("leads-only");
    // Somebody writes meanwhile.
    await desk.arrive({ into: id, subject: "First" }).catch(() => null);
    const raw = aMessageWithFiles({ id: "late@x.example", subject: "Re: First" }, []);
    const text = Buffer.from(raw)
      .toString()
      .replace("MIME-Version", `In-Reply-To: <letter${letters}@x.example>\r\nMIME-Version`);
    const recipients = [address("office@ottermoor.example")];
    await receiveMessage(tray.deps, { raw: Buffer.from(text), envelopeSender: "a@x.example", recipients });
    expect(refusal(await disposes(record.id, previewId))).toBe("not-as-shown");
    expect(refusal(await disposes(record.id))).toBe("open-on-record");
    expect(await isThere(id)).toBe(true);
  });

  it("leaves what another record needs, and takes it off", async () => {
    const [first, second] = [await opens("First keeper"), await opens("Second keeper")];
    const [both, part, alone] = [await arrives("Both"), await arrives("Part"), await arrives("Only here")];
    await files([both, part, alone], first.id);
    await files([both], second.id);
    const message = (await openConversation(tray.deps, desk.lead, part, "ahead"))?.messages[0];
    await desk.does(desk.lead, part, {
      kind: "file",
      recordId: second.id,
      settle: false,
      part: { messageId: message?.id ?? trustedId(""), attachment: 0 },
    });
    await closes(first);
    days(31);
    expect(done(await disposes(first.id))).toMatchObject({ conversations: 1, elsewhere: 2 });
    expect([await isThere(both), await isThere(part), await isThere(alone)]).toEqual([true, true, false]);
    expect((await openConversation(tray.deps, desk.lead, both, "ahead"))?.row.recordCodes).toEqual([second.code]);
    await closes(second);
    days(31);
    expect(done(await disposes(second.id))).toMatchObject({ conversations: 1, elsewhere: 0 });
    expect(await isThere(both)).toBe(false);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });

  it("leaves bytes that are on another record, until that goes as well", async () => {
    const [first, second] = [await opens("One blob"), await opens("Same blob")];
    const file = { name: "same.txt", contentType: "text/plain", content: Buffer.from("The same bytes.") };
    for (const record of [first, second]) {
      done(await addDocument(tray.deps, desk.lead, desk.ines, record, file));
      await closes(record);
    }
    const sha256 = createHash("sha256").update(file.content).digest();
    const isStored = async () => (await tray.ask("select 1 from blob where sha256 = $1", [sha256])).length;
    days(31);
    done(await disposes(first.id));
    expect(await isStored()).toBe(1);
    done(await disposes(second.id));
    expect(await isStored()).toBe(0);
  });

  it("stays while it is held, or something under it is there", async () => {
    const above = await opens("Above");
    const below = await opens("Below", { parentId: above.id });
    await closes(above);
    await closes(below);
    days(31);
    expect(refusal(await holdRecord(tray.deps, desk.lead, above.id, " "))).toBe("no-reason");
    done(await holdRecord(tray.deps, desk.lead, above.id, "Lawsuit"));
    for (const { id } of [above, below]) expect(refusal(await preview(id))).toBe("not-due");
    expect((await lookAtRetention(tray.deps, desk.lead)).held.map(({ code }) => code)).toEqual([
      above.code,
      below.code,
    ]);
    const { holds, term } = await retentionOf(tray.deps, desk.lead, above.id);
    expect(term).toEqual({ kind: "held", reasons: ["Lawsuit"] });
    done(await releaseRecord(tray.deps, desk.lead, above.id, holds[0]?.id ?? ""));
    expect(refusal(await disposes(above.id))).toBe("records-under");
    done(await disposes(below.id));
    done(await disposes(above.id));
  });

  it("is kept for longer by whoever looks at it", async () => {
    const record = await opens("Looked at");
    await closes(record);
    days(31);
    const until = later(tray.clock.now as Instant, 10 * DAY);
    expect(refusal(await keepLonger(tray.deps, desk.lead, record.id, later(until, -20 * DAY), "then"))).toBe(
      "date-is-past",
    );
    done(await keepLonger(tray.deps, desk.lead, record.id, until, "then"));
    expect(refusal(await preview(record.id))).toBe("not-due");
    days(11);
    done(await disposes(record.id));
  });

  it("is nobody's to see who may not know of it, nor is its certificate", async () => {
    const record = await opens("Secret", { hidden: true });
    await closes(record);
    days(31);
    const mara = { ...desk.maraGrant, role: "lead" } as typeof desk.lead;
    const seen = async () => JSON.stringify(await lookAtRetention(tray.deps, mara));
    expect(await seen()).not.toContain(record.code);
    expect(refusal(await previewDisposal(tray.deps, mara, record.id))).toBe("no-such");
    done(await disposes(record.id));
    expect(await seen()).not.toContain(record.code);
  });

  it("takes nothing more while it goes", async () => {
    for (let round = 0; round < 4; round += 1) {
      const record = await opens(`Round ${round}`);
      await closes(record);
      days(31);
      const { previewId } = done(await preview(record.id));
      done(await closeRecord(tray.deps, desk.lead, record.id, false));
      done(await closeRecord(tray.deps, desk.lead, record.id, true));
      days(31);
      const id = await arrives(`At once ${round}`);
      const [gone, filed] = await Promise.all([
        disposes(record.id, previewId),
        decide(
          tray.deps,
          desk.lead,
          { ids: [id], seenVersion: null },
          { kind: "file", recordId: record.id, settle: true },
        ),
      ]);
      expect(gone.ok).toBe(true);
      expect(filed.ok).toBe(false);
    }
  });
});

describe("a disposal in slices", () => {
  // As if the process died after so many steps were told.
  const diesAfter = (steps: number) => {
    let left = steps;
    const publishChange = () => {
      left -= 1;
      if (left < 0) throw new Error("killed");
    };
    return { ...tray.deps, publishChange };
  };
  const isDue = async (count: number) => {
    const record = await opens(`Slices of ${count}`);
    const ids: ConversationId[] = [];
    for (let at = 0; at < count; at += 1) ids.push(await arrives(`Slice ${at}`, ["a.txt"]));
    await files(ids, record.id);
    await closes(record);
    days(31);
    return { record, ids, previewId: done(await preview(record.id)).previewId };
  };
  const certificateOf = async (code: string) =>
    (await lookAtRetention(tray.deps, desk.lead)).certificates.find((one) => one.code === code);

  it("is nobody's to find from its beginning on, and is gone on with after its process died", async () => {
    const { record, ids, previewId } = await isDue(20);
    await expect(disposeOf(diesAfter(3), desk.lead, desk.ines, record.id, previewId)).rejects.toThrow("killed");
    expect(await recordOfCode(tray.deps, desk.lead, record.code)).toBeNull();
    expect(await certificateOf(record.code)).toBeUndefined();
    const left = (await Promise.all(ids.map(isThere))).filter(Boolean).length;
    expect([left > 0, left < 20]).toEqual([true, true]);
    // Two processes at once come to one certificate.
    await Promise.all([disposeByItself(tray.deps), disposeByItself(tray.deps)]);
    expect(await certificateOf(record.code)).toMatchObject({ conversations: 20, messages: 20, documents: 20 });
    expect((await Promise.all(ids.map(isThere))).some(Boolean)).toBe(false);
    expect(await tray.ask("select from disposal")).toEqual([]);
    const diagnosis = await examine(tray.deps);
    expect(diagnosis).toMatchObject({ differences: [], messagesWithoutRaw: 0, countsAstray: 0 });
  });

  it("leaves what somebody wrote in meanwhile, and says so", async () => {
    const { record, ids, previewId } = await isDue(3);
    await expect(disposeOf(diesAfter(0), desk.lead, desk.ines, record.id, previewId)).rejects.toThrow("killed");
    const raw = Buffer.from(aMessageWithFiles({ id: "meanwhile@x.example", subject: "Re: Slice 2" }, []))
      .toString()
      .replace("MIME-Version", `In-Reply-To: <letter${letters}@x.example>\r\nMIME-Version`);
    const recipients = [address("office@ottermoor.example")];
    await receiveMessage(tray.deps, { raw: Buffer.from(raw), envelopeSender: "a@x.example", recipients });
    await disposeByItself(tray.deps);
    const [, , answered] = ids;
    expect(await certificateOf(record.code)).toMatchObject({ conversations: 2, elsewhere: 1, messages: 2 });
    const kept = await openConversation(tray.deps, desk.lead, answered ?? trustedId(""), "ahead");
    expect([kept?.messages.length, kept?.row.recordCodes, kept?.row.standing]).toEqual([2, [], "to-sort"]);
    expect((await examine(tray.deps)).differences).toEqual([]);
  });
});

describe("what goes by itself", () => {
  beforeEach(async () => {
    for (const { id, bearers } of (await lookAtRetention(tray.deps, desk.lead)).policies)
      if (bearers === 0) done(await removePolicy(tray.deps, desk.lead, id));
  });

  it("is announced, and goes a week later if nothing is otherwise", async () => {
    const byItself = done(await policy("By itself", { endsIn: "disposal" }));
    const record = await opens("Routine");
    const id = await arrives("Routine letter");
    await files([id], record.id);
    done(await bearPolicy(tray.deps, desk.lead, "record", record.id, byItself.id));
    await closes(record);
    expect(await disposeByItself(tray.deps)).toBe(0);
    days(31);
    expect(await disposeByItself(tray.deps)).toBe(0);
    const announced = (await lookAtRetention(tray.deps, desk.lead)).due.find((line) => line.id === record.id);
    expect(announced?.goesAt).toBe(later(tray.clock.now as Instant, 7 * DAY));
    days(6);
    expect(await disposeByItself(tray.deps)).toBe(0);
    // Something is otherwise: another week.
    const file = { name: "late.txt", contentType: "text/plain", content: Buffer.from("Late.") };
    done(await closeRecord(tray.deps, desk.lead, record.id, false));
    done(await addDocument(tray.deps, desk.lead, desk.ines, record, file));
    done(await closeRecord(tray.deps, desk.lead, record.id, true));
    days(31);
    expect(await disposeByItself(tray.deps)).toBe(0);
    expect(await isThere(id)).toBe(true);
    days(7);
    expect(await disposeByItself(tray.deps)).toBe(1);
    expect(await isThere(id)).toBe(false);
    const [certificate] = (await lookAtRetention(tray.deps, desk.lead)).certificates;
    expect(certificate).toMatchObject({ code: record.code, byName: "The tray, by its policy", documents: 2 });
  });
});

describe("a policy", () => {
  it("has a name of its own, and stays while something bears it", async () => {
    expect(refusal(await policy("a MONTH"))).toBe("name-there");
    expect(inEnglish(await policy("", { period: "ten years" }))).toMatchObject({
      error: { problems: { name: /name/, period: /P10Y/ } },
    } as never);
    expect(refusal(await editPolicy(tray.deps, desk.maraGrant, { ...done(await policy("Spare")), name: "x" }))).toBe(
      "leads-only",
    );
    const record = await opens("Bearer");
    expect(refusal(await removePolicy(tray.deps, desk.lead, aDay))).toBe("policy-borne");
    done(await bearPolicy(tray.deps, desk.lead, "record", record.id, null));
    expect(await retentionOf(tray.deps, desk.lead, record.id)).toMatchObject({
      term: { kind: "for-good" },
      policyId: null,
    });
    const [type] = await getTypes(tray.deps);
    done(await bearPolicy(tray.deps, desk.lead, "record_type", type?.id ?? "", aDay));
    expect((await retentionOf(tray.deps, desk.lead, record.id)).term).toMatchObject({ kind: "not-closed" });
    done(await bearPolicy(tray.deps, desk.lead, "record_type", type?.id ?? "", null));
  });
});
