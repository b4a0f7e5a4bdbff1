import { aWordDocument } from "@tests/support/a-word-document";
import { type Desk, done, type OpenedRecord, setUpDesk } from "@tests/support/desk";
import { aMessage } from "@tests/support/mail";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import {
  addDocument,
  documentsOf,
  emptyBins,
  readDocuments,
  receiveMessage,
  reparse,
  search,
  wantReading,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let record: OpenedRecord;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  record = await desk.opensRecord("Pell");
});
afterAll(() => tray.close());

let count = 0;
/** A message that carries a text file, and a Word document where it is given. */
const arrives = async (
  name: string,
  text: string,
  word?: string,
  own = "Please find it enclosed.",
): Promise<ConversationId> => {
  count += 1;
  const part = (head: string, body: string) => ["--cut", head, "", body].join("\r\n");
  const encoded = word === undefined ? null : Buffer.from(await aWordDocument(word)).toString("base64");
  const body = [
    part("Content-Type: text/plain; charset=utf-8", own),
    part(`Content-Type: text/plain; charset=utf-8\r\nContent-Disposition: attachment; filename=${name}`, text),
    ...(encoded === null
      ? []
      : [
          part(
            "Content-Type: application/octet-stream\r\nContent-Transfer-Encoding: base64\r\nContent-Disposition: attachment; filename=offer.docx",
            encoded.replace(/(.{76})/g, "$1\r\n"),
          ),
        ]),
    "--cut--",
  ].join("\r\n");
  const headers = { "MIME-Version": "1.0", "Content-Type": "multipart/mixed; boundary=cut" };
  const raw = aMessage({ id: `carrier${count}@x.example`, subject: `Carrier ${count}`, headers, body });
  const recipients = [address("office@ottermoor.example")];
  const [kept] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  return kept?.conversationId ?? trustedId("");
};
const found = async (text: string) => {
  const hits = await search(tray.deps, desk.lead, text);
  return hits.map(({ row, file }) => [row.id, file]);
};
const documents = async (text: string) =>
  (await documentsOf(tray.deps, desk.lead, record, text)).map(({ name }) => name).toSorted();

describe("the words of what a message carries", () => {
  it("find the message, and say in which file they stand", async () => {
    const id = await arrives("sizes.txt", "Quintadena, eight foot.", "Chamois, twelve skins");
    expect(await found("quintadena ")).toEqual([]);
    tray.jobs.length = 0;
    await wantReading(tray.deps);
    expect(tray.jobs).toEqual([{ kind: "read-documents" }]);
    expect(await readDocuments(tray.deps)).toBe(1);
    expect(await found("quintadena ")).toEqual([[id, "sizes.txt"]]);
    expect(await found("chamois ")).toEqual([[id, "offer.docx"]]);
    expect(await found("offer chamois ")).toEqual([[id, "offer.docx"]]);
    // What is half in the message and half in a file is found, but no one file has it.
    expect(await found("enclosed chamois ")).toEqual([[id, null]]);
    expect(await found('"twelve skins please"')).toEqual([]);
    expect(await readDocuments(tray.deps)).toBe(0);
    tray.jobs.length = 0;
    await wantReading(tray.deps);
    expect(tray.jobs).toEqual([]);
  });

  it("are kept when everything is understood anew, and gone with the message", async () => {
    const id = await arrives("gamba.txt", "Viola da gamba.");
    await readDocuments(tray.deps);
    await tray.ask("update message set warnings = '{old}' where conversation_id = $1", [id]);
    expect((await reparse(tray.deps, () => {})).changed).toBeGreaterThan(0);
    await readDocuments(tray.deps);
    expect(await found("gamba viola ")).toEqual([[id, "gamba.txt"]]);
    await desk.does(desk.lead, id, { kind: "bin" });
    tray.clock.now = later(tray.clock.now as Instant, 40 * DAY);
    expect(await emptyBins(tray.deps)).toBe(1);
    expect(await found("gamba ")).toEqual([]);
    expect(await tray.ask("select 1 from attachment_words where vector @@ 'gamba'")).toEqual([]);
  });
});

/** Words in characters of three bytes, hardly one like another. */
function manyWords(characters: number, seed: number): string {
  let state = seed;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return String.fromCharCode(0x4e00 + ((state >>> 8) % 20_000));
  };
  return Array.from({ length: characters / 6 }, () => `${next()}${next()}${next()}${next()}${next()} `).join("");
}

describe("the documents of a record", () => {
  it("are found by their names and their words, wherever they come from", async () => {
    const id = await arrives("cornet.txt", "Cornet, five ranks, in tin.");
    await desk.does(desk.lead, id, { kind: "file", recordId: record.id, settle: false });
    const put = { name: "Case drawing.docx", contentType: "application/octet-stream" };
    const content = await aWordDocument("Tower in oak, with five carvings");
    done(await addDocument(tray.deps, desk.lead, desk.ines, record, { ...put, content }));
    expect(await documents("drawing")).toEqual(["Case drawing.docx"]);
    expect(await documents("oak")).toEqual([]);
    await readDocuments(tray.deps);
    expect(await documents("oak")).toEqual(["Case drawing.docx"]);
    expect(await documents("five")).toEqual(["Case drawing.docx", "cornet.txt"]);
    expect(await documents("tin five")).toEqual(["cornet.txt"]);
    expect(await documents("drawing oak")).toEqual(["Case drawing.docx"]);
    expect(await documents('"five ranks"')).toEqual(["cornet.txt"]);
    expect(await documents("")).toHaveLength(2);
  });
});

describe("files with more words than can be kept with their message", () => {
  it("have their own, and hold up no other", async () => {
    await arrives("pedal.txt", "Bombarde in zinc.");
    const own = `${manyWords(140_000, 2)}\r\n\r\nOn Monday somebody wrote:\r\n> ${manyWords(140_000, 3)}`;
    const long = await arrives("first.txt", `${manyWords(140_000, 1)} regal`, undefined, own);
    await desk.does(desk.lead, long, { kind: "file", recordId: record.id, settle: false });
    expect(await readDocuments(tray.deps)).toBe(2);
    expect(await readDocuments(tray.deps)).toBe(0);
    expect(await found("bombarde ")).toHaveLength(1);
    expect(await found("regal ")).toEqual([]);
    expect(await documents("regal")).toEqual(["first.txt"]);
  });
});
