import { createHash } from "node:crypto";
import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { zipOfRecord } from "@tests/support/on-record";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { filesInZip } from "@tests/support/zips";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { parseMessage, readTable } from "../../mail/index";
import { answerConversation, createRecord, editType, getTypes, receiveMessage } from "../index.server";

let tray: TestTray;
let desk: Desk;
let code: string;
let id: ConversationId;

const DRAWING = "Lower frame, one to twenty.\n";
const LETTER = ["Two things:", "", "From here on it hums.", "", "--p", "Content-Type: text/plain", ""].join("\r\n");

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const [client] = await getTypes(tray.deps);
  if (client === undefined) throw new Error("there are types from the start");
  const kind = {
    key: "k",
    label: "Kind",
    kind: "text",
    required: false,
    choices: [],
    start: "",
    remembers: false,
  } as const;
  done(await editType(tray.deps, desk.lead, { ...client, fields: [kind] }));
  const draft = {
    typeId: client.id,
    title: "Vane House, Größe",
    parentId: null,
    responsibleId: null,
  };
  const access = { memberIds: [desk.ines.id], groupIds: [] };
  const made = await createRecord(tray.deps, desk.lead, {
    ...draft,
    note: "",
    addresses: "vane@vanehouse.example",
    access,
  });
  ({ code } = done(made));
  const body = [
    "--p",
    "Content-Type: text/plain",
    "",
    LETTER.split("--p")[0] ?? "",
    "--p",
    'Content-Type: text/plain; name="frame.txt"',
    'Content-Disposition: attachment; filename="../frame.txt"',
    "",
    DRAWING,
    "--p--",
    "",
  ].join("\r\n");
  const headers = { "MIME-Version": "1.0", "Content-Type": 'multipart/mixed; boundary="p"' };
  const raw = aMessage({ id: "one@x.example", subject: "The frame / hum", headers, body });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  id = kept?.conversationId ?? trustedId("");
  const filing = {
    kind: "file",
    recordId: done(made).id,
    settle: false,
    means: "picker",
    fields: { k: "offer" },
  } as const;
  await desk.does(desk.lead, id, filing, { kind: "note", text: "Ring her first." });
  const to = [{ name: "Perpetua Vane", address: address("perpetua.vane@vanehouse.example") }];
  const answer = {
    to,
    cc: [],
    subject: "Re: The frame / hum",
    html: "<p>On Tuesday.</p>",
    after: { kind: "settle" as const },
  };
  done(await answerConversation(tray.deps, desk.lead, desk.ines, id, answer));
});
afterAll(() => tray.close());

async function exported(format: "eml" | "mbox", withNotes = false, who = desk.lead) {
  const zip = await zipOfRecord(tray.deps, who, code, { format, withNotes });
  return zip === null ? null : filesInZip(zip);
}
const linesOf = (files: ReadonlyMap<string, Buffer>) => {
  const read = readTable(files.get("index.csv")?.toString() ?? "", [
    "kind",
    "file",
    "sha256",
    "size",
    "direction",
    "from",
    "messageid",
    "means",
    "filedby",
    "field: kind",
  ]);
  if (!read.ok) throw new Error(inEnglish(read.error));
  return read.value.map(({ cells }) => cells);
};

describe("a record taken out", () => {
  it("has its messages as they came, its documents and what the register says", async () => {
    const files = await exported("eml");
    if (files === null) throw new Error("it is there");
    const names = [...files.keys()];
    expect(names.at(-1)).toBe("index.csv");
    expect(names.every((name) => !/\.\.|\\|:/.test(name))).toBe(true);
    const [first, second] = names.filter((name) => name.startsWith("messages/"));
    const read = async (name = "") => (await parseMessage(files.get(name) ?? Buffer.alloc(0))).message;
    expect((await read(first)).subject).toBe("The frame / hum");
    expect((await read(second)).ownText.trim()).toBe("On Tuesday.");
    const [document] = names.filter((name) => name.startsWith("documents/"));
    expect(
      files
        .get(document ?? "")
        ?.toString()
        .trim(),
    ).toBe(DRAWING.trim());
    expect(files.get("record.csv")?.toString()).toContain(`"Vane House, Größe",${code},Client`);
  });

  it("has every file in its index, with its size, its SHA-256 and how it was filed", async () => {
    const files = await exported("eml");
    if (files === null) throw new Error("it is there");
    const lines = linesOf(files);
    expect(lines.map(({ kind }) => kind)).toEqual(["message", "message", "conversation", "document"]);
    for (const { file = "", sha256, size } of lines) {
      const content = files.get(file);
      expect([file, sha256]).toEqual([
        file,
        createHash("sha256")
          .update(content ?? "")
          .digest("hex"),
      ]);
      expect(Number(size)).toBe(content?.byteLength);
    }
    expect(lines[0]).toMatchObject({
      direction: "in",
      messageid: "one@x.example",
      means: "by hand",
      filedby: "Ines Varga",
      "field: kind": "offer",
    });
    expect(lines[1]).toMatchObject({ direction: "out", "field: kind": "offer" });
  });

  it("is printed by conversation, the same each time, its notes only where they are wanted", async () => {
    const pdfOf = async (withNotes: boolean) => {
      const files = await exported("eml", withNotes);
      return [...(files ?? [])].filter(([name]) => name.endsWith(".pdf")).map(([, content]) => content)[0];
    };
    const [plain, again, noted] = [await pdfOf(false), await pdfOf(false), await pdfOf(true)];
    expect(plain?.subarray(0, 5).toString()).toBe("%PDF-");
    expect(again?.equals(plain ?? Buffer.alloc(0))).toBe(true);
    expect(noted?.byteLength).toBeGreaterThan((plain?.byteLength ?? 0) + 100);
  });

  it("has its messages as one mbox where that is wanted", async () => {
    const files = await exported("mbox");
    const mbox = files?.get("messages.mbox")?.toString() ?? "";
    expect(mbox.match(/^From MAILER-DAEMON /gm)).toHaveLength(2);
    expect(mbox).toContain("\n>From here on it hums.");
    expect([...(files?.keys() ?? [])].some((name) => name.endsWith(".eml"))).toBe(false);
    expect(
      linesOf(files ?? new Map())
        .slice(0, 2)
        .map(({ file }) => file),
    ).toEqual(["messages.mbox", "messages.mbox"]);
  });

  it("is nothing to one who may not know of it", async () => {
    expect(await exported("eml", false, desk.maraGrant)).toBeNull();
  });
});
