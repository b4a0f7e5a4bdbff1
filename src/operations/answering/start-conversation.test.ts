import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { onRecordOf } from "@tests/support/on-record";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type RecordId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import {
  type Answer,
  answerConversation,
  closeRecord,
  createRecord,
  editType,
  getTypes,
  openConversation,
  openingMessage,
  proposalsFor,
  setPuttingAway,
  startConversation,
  traySettings,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let record: { id: RecordId; code: string };

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const project = (await getTypes(tray.deps)).find(({ name }) => name === "Project");
  const draft = { typeId: project?.id ?? trustedId(""), title: "Sorrel case", parentId: null, responsibleId: null };
  const given = { ...draft, note: "", addresses: "casework@calder.example", access: null };
  record = done(await createRecord(tray.deps, desk.lead, given));
});
afterAll(() => tray.close());

const letter = (given: Partial<Answer> = {}): Answer => ({
  to: [{ name: "Leocadia Thrane", address: address("casework@calder.example") }],
  cc: [],
  html: "<p>When?</p>",
  subject: `Drawings [${record.code}]`,
  after: { kind: "expect", until: later(tray.clock.now, DAY) },
  files: { recordId: record.id },
  ...given,
});
const openOf = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, desk.lead, id, "ahead");
  if (open === null) throw new Error("it is there");
  return open;
};
const rawOf = async (messageId: string): Promise<string> => {
  const sql = "select convert_from(content, 'utf8') as raw from message join blob on sha256 = raw_sha256 where id = $1";
  return (await tray.ask(sql, [messageId]))[0].raw;
};

describe("a message that begins with a record", () => {
  it("is filed there, hers, waits for its answer, and carries the code for whoever answers", async () => {
    const sent = done(await startConversation(tray.deps, desk.maraGrant, desk.mara, letter()));
    const { row, docket } = await openOf(sent.conversationId);
    expect(row).toMatchObject({ standing: "waiting", ownerId: desk.mara.id, recordCodes: [record.code] });
    expect(row.who).toBe("Leocadia Thrane");
    expect(docket.expectations).toHaveLength(1);
    expect(await rawOf(sent.messageId)).toMatch(new RegExp(`^Record-Reference: ${record.code}\\r?$`, "m"));
    expect(tray.jobs.some((job) => job.kind === "send-message" && job.messageId === sent.messageId)).toBe(true);
    const page = await onRecordOf(tray.deps, desk.lead, record.code);
    expect(page?.conversations.map(({ id }) => id)).toEqual([sent.conversationId]);
  });

  it("finds its record when a stranger answers in a thread of his own", async () => {
    const id = await desk.arrive({ subject: `Your drawings [${record.code}]`, from: "nephew@elsewhere.example" });
    const { row } = await openOf(id);
    expect(row.recordCodes).toEqual([]);
    const { proposals } = await proposalsFor(tray.deps, desk.lead, row);
    expect(proposals[0]).toMatchObject({ kind: "file", recordId: record.id, because: { kind: "code" } });
  });

  it("begins with whom it could go to: those of the record, then who wrote most about it", async () => {
    const id = await desk.arrive({ subject: "Fixings", from: "Marl <marl@joiners.example>" });
    await desk.does(desk.lead, id, { kind: "file", recordId: record.id, settle: false });
    const begun = await openingMessage(tray.deps, desk.lead, record.code);
    expect(begun?.people.map(({ address: one }) => one)).toEqual(["casework@calder.example", "marl@joiners.example"]);
    expect(begun?.people[1]?.name).toBe("Marl");
  });

  it("is followed by answers that name the record in their header, too", async () => {
    const sent = done(await startConversation(tray.deps, desk.lead, desk.ines, letter()));
    const more = letter({ subject: "Re: Drawings", after: { kind: "keep" } });
    const answered = done(await answerConversation(tray.deps, desk.lead, desk.ines, sent.conversationId, more));
    expect(await rawOf(answered)).toContain(`Record-Reference: ${record.code}`);
  });

  it("is filed with what its record asks for, or not sent", async () => {
    const kind = { key: "kind", label: "Kind", kind: "choice", required: true, choices: ["offer"], start: "" } as const;
    const asking = { id: null, name: "Asking", codePattern: "A-{nnn}", fields: [{ ...kind, remembers: false }] };
    const typeId = done(await editType(tray.deps, desk.lead, asking));
    const draft = {
      typeId,
      title: "Asked",
      parentId: null,
      responsibleId: null,
      note: "",
      addresses: "",
      access: null,
    };
    const asked = done(await createRecord(tray.deps, desk.lead, draft));
    const writes = (files: NonNullable<Answer["files"]>) =>
      startConversation(tray.deps, desk.lead, desk.ines, letter({ files }));
    expect(refusal(await writes({ recordId: asked.id }))).toBe("fields-asked");
    const sent = done(await writes({ recordId: asked.id, fields: { kind: "offer" } }));
    expect((await openOf(sent.conversationId)).row.recordCodes).toEqual([asked.code]);
  });

  it("is refused to whoever only reads, without a recipient, and on a record that is closed or not hers to know", async () => {
    const writes = (grant: Desk["lead"], given: Partial<Answer> = {}) =>
      startConversation(tray.deps, grant, desk.ines, letter(given));
    expect(refusal(await writes(desk.reader))).toBe("readers-only-read");
    expect(refusal(await writes(desk.lead, { to: [] }))).toBe("no-recipient");
    expect(refusal(await writes(desk.lead, { files: { recordId: trustedId(desk.ines.id) } }))).toBe("no-such");
    const past = { kind: "expect", until: later(tray.clock.now, -DAY) } as const;
    expect(refusal(await writes(desk.lead, { after: past }))).toBe("date-is-past");
    done(await closeRecord(tray.deps, desk.lead, record.id, true));
    expect(refusal(await writes(desk.lead))).toBe("record-closed");
    expect(await openingMessage(tray.deps, desk.lead, record.code)).toBeNull();
    done(await closeRecord(tray.deps, desk.lead, record.id, false));
  });
});

describe("a message that begins with nobody's record", () => {
  it("is hers, waits for its answer, and is filed nowhere", async () => {
    const to = [{ name: "", address: address("nobody.yet@new.example") }];
    const sent = done(await startConversation(tray.deps, desk.maraGrant, desk.mara, letter({ to, files: null })));
    const { row, docket } = await openOf(sent.conversationId);
    expect(row).toMatchObject({ standing: "waiting", ownerId: desk.mara.id, recordCodes: [] });
    expect(row.who).toBe("nobody.yet@new.example");
    expect(docket.expectations).toHaveLength(1);
    expect(await rawOf(sent.messageId)).not.toContain("Record-Reference");
  });

  it("is not settled where a tray settles only what is filed", async () => {
    const { binDays, junkDays } = await traySettings(tray.deps, desk.lead);
    done(await setPuttingAway(tray.deps, desk.lead, { binDays, junkDays, filesFirst: true }));
    const settles = letter({ files: null, after: { kind: "settle" } });
    expect(refusal(await startConversation(tray.deps, desk.lead, desk.ines, settles))).toBe("file-first");
    done(await setPuttingAway(tray.deps, desk.lead, { binDays, junkDays, filesFirst: false }));
  });
});
