import { randomBytes } from "node:crypto";
import { type Desk, done, only, refusal, setUpDesk } from "@tests/support/desk";
import { aMessage, aMessageWithFiles } from "@tests/support/mail";
import { address, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type DraftAttachmentId, trustedId } from "../../core/kernel/ids";
import { DAY, type Instant, later } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";
import { MOST_ENCLOSED_BYTES } from "../../core/writing/draft-attachment";
import { parseMessage } from "../../mail/index";
import {
  type Answer,
  addDocument,
  answerConversation,
  attachDocument,
  attachFile,
  documentsToAttach,
  forgetDraftAttachments,
  handDraft,
  type Member,
  openConversation,
  readAttachment,
  readDocument,
  readRaw,
  recallMessage,
  receiveMessage,
  removeDocument,
  startConversation,
  type TrayGrant,
} from "../index.server";

let tray: TestTray;
let desk: Desk;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());

const file = (name: string, content: Uint8Array | string = `This is ${name}.`): NamedFile => ({
  name,
  contentType: "text/plain",
  content: Buffer.from(content),
});
const letter = (enclosures: readonly DraftAttachmentId[]): Answer => ({
  to: [{ name: "P. Vane", address: address("vane@vanehouse.example") }],
  cc: [],
  html: "<p>Here it is.</p>",
  subject: "Re: Drawings",
  after: { kind: "keep" },
  enclosures,
});
const answers = (id: ConversationId, enclosures: readonly DraftAttachmentId[], grant = desk.lead) =>
  answerConversation(tray.deps, grant, desk.ines, id, letter(enclosures));
const carriedBy = async (messageId: Parameters<typeof readRaw>[2]) => {
  const raw = await readRaw(tray.deps, desk.lead, messageId);
  const { message, contents } = await parseMessage(raw ?? new Uint8Array());
  return message.attachments.map(({ fileName, contentType, index }) => ({
    fileName,
    contentType,
    text: Buffer.from(contents[index] ?? []).toString(),
  }));
};
const kept = async (given: NamedFile) => done(await attachFile(tray.deps, desk.lead, given));

describe("files that go with a message", () => {
  it("are of whoever brought them, and of whoever holds a draft that they are in", async () => {
    const { id, name, size } = await kept(file("secret.txt"));
    const conversation = await desk.arrive();
    expect(refusal(await answers(conversation, [id], desk.maraGrant))).toBe("attachment-gone");
    const content = { to: "", cc: "", subject: "", html: "<p>x</p>", after: "keep", day: "" } as const;
    const hand = (by: TrayGrant, to: Member) =>
      handDraft(tray.deps, by, conversation, {
        content: { ...content, enclosures: [{ id, name, size }] },
        to: to.id,
        note: "",
        seen: null,
      });
    // Whoever names a file in a draft does not have it by that.
    expect(refusal(await hand(desk.tobiasGrant, desk.mara))).toBe("attachment-gone");
    done(await hand(desk.lead, desk.mara));
    expect(refusal(await answers(conversation, [id], desk.tobiasGrant))).toBe("attachment-gone");
    done(await answers(conversation, [id], desk.maraGrant));
  });

  it("go with an answer and with a first message, in their order, with safe names, and are listed with it", async () => {
    const [one, two] = [await kept(file("../drawing.txt")), await kept(file("Größe.txt"))];
    expect([one.name, two.size]).toEqual(["drawing.txt", Buffer.byteLength("This is Größe.txt.")]);
    const id = await desk.arrive();
    const sent = done(await answers(id, [two.id, one.id]));
    expect(await carriedBy(sent)).toEqual([
      { fileName: "Größe.txt", contentType: "text/plain", text: "This is Größe.txt." },
      { fileName: "drawing.txt", contentType: "text/plain", text: "This is ../drawing.txt." },
    ]);
    const open = await openConversation(tray.deps, desk.lead, id);
    expect(open?.messages.at(-1)?.attachments.map(({ fileName }) => fileName)).toEqual(["Größe.txt", "drawing.txt"]);
    const first = done(await startConversation(tray.deps, desk.lead, desk.ines, letter([one.id])));
    expect((await carriedBy(first.messageId)).map(({ fileName }) => fileName)).toEqual(["drawing.txt"]);
  });

  it("may be a message, which is carried as it is", async () => {
    const raw = aMessage({ id: "carried@x.example", subject: "Carried" });
    const mail = await kept({ name: "carried.eml", contentType: "message/rfc822", content: raw });
    const sent = done(await answers(await desk.arrive(), [mail.id]));
    const [carried] = await carriedBy(sent);
    expect(carried).toMatchObject({ fileName: "carried.eml", contentType: "message/rfc822" });
    expect(carried?.text).toContain("Subject: Carried");
  });

  it("are in the draft again when the message is taken back", async () => {
    const sent = done(await answers(await desk.arrive(), [(await kept(file("offer.txt"))).id]));
    const back = done(await recallMessage(tray.deps, desk.lead, sent));
    expect(back.enclosures).toMatchObject([{ name: "offer.txt" }]);
    const again = done(await answers(back.conversationId, [back.enclosures[0]?.id ?? trustedId("")]));
    expect(await carriedBy(again)).toMatchObject([{ fileName: "offer.txt", text: "This is offer.txt." }]);
  });

  it("are refused where they are not there, are another tray's, come to too much, or somebody only reads", async () => {
    const id = await desk.arrive();
    const messages = (await openConversation(tray.deps, desk.lead, id))?.messages.length;
    const half = file("half.bin", Buffer.alloc(MOST_ENCLOSED_BYTES / 2 + 1));
    const [one, two] = [await kept(half), await kept({ ...half, name: "other half.bin" })];
    expect(refusal(await answers(id, [one.id, two.id]))).toBe("too-large");
    expect(refusal(await answers(id, [one.id, trustedId(desk.ines.id)]))).toBe("attachment-gone");
    const other = { ...desk.lead, tray: { ...desk.lead.tray, id: trustedId<typeof desk.lead.tray.id>(desk.ines.id) } };
    expect(refusal(await startConversation(tray.deps, other, desk.ines, letter([one.id])))).toBe("attachment-gone");
    expect(refusal(await attachFile(tray.deps, desk.reader, file("no.txt")))).toBe("readers-only-read");
    const many = Array.from({ length: 31 }, () => one.id);
    expect(refusal(await answers(id, many))).toBe("too-many");
    expect((await openConversation(tray.deps, desk.lead, id))?.messages).toHaveLength(messages ?? 0);
  });
});

describe("a document of a record", () => {
  it("goes with a message, whether somebody put it there or a message brought it", async () => {
    const reeds = await desk.opensRecord("Reed stops");
    done(await addDocument(tray.deps, desk.lead, desk.ines, reeds, file("plan.txt")));
    const raw = aMessageWithFiles({ id: "brings@x.example", subject: "Brings" }, ["brought.txt"]);
    const recipients = [address("office@ottermoor.example")];
    const [arrived] = await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
    const id = arrived?.conversationId ?? trustedId<ConversationId>("");
    await desk.does(desk.lead, id, { kind: "file", recordId: reeds.id, settle: false });
    const [offered] = await documentsToAttach(tray.deps, desk.lead, [reeds.code, "no such code"]);
    const wanted = (offered?.documents ?? []).flatMap(({ name, versions }) =>
      versions.map(({ sha256 }) => ({ code: reeds.code, name, sha256 })),
    );
    const taken = [];
    for (const one of wanted) taken.push(done(await attachDocument(tray.deps, desk.lead, one)));
    const sent = done(
      await answers(
        id,
        taken.map((one) => one.id),
      ),
    );
    expect((await carriedBy(sent)).map(({ text }) => text.trim()).toSorted()).toEqual([
      "This is brought.txt.",
      "This is plan.txt.",
    ]);
  });

  it("does not exist for whoever may not know of the record", async () => {
    const secret = await desk.opensRecord("Not for Mara", { access: only(desk.ines) });
    done(await addDocument(tray.deps, desk.lead, desk.ines, secret, file("secret.txt")));
    const [found] = await documentsToAttach(tray.deps, desk.lead, [secret.code]);
    const sha256 = found?.documents[0]?.versions[0]?.sha256 ?? "";
    const wanted = { code: secret.code, name: "secret.txt", sha256 };
    expect(refusal(await attachDocument(tray.deps, desk.lead, wanted))).toBe("done");
    expect(await documentsToAttach(tray.deps, desk.maraGrant, [secret.code])).toEqual([]);
    expect(refusal(await attachDocument(tray.deps, desk.maraGrant, wanted))).toBe("no-such");
  });
});

describe("the bytes", () => {
  // Long enough to be cut out of the message that carries it, so that it is stored once.
  const long = randomBytes(40_000);

  it("of a document that is taken off its record stay in the message that went with it, and are forgotten with the last", async () => {
    const { code, id } = await desk.opensRecord("Shared bytes");
    const document = done(await addDocument(tray.deps, desk.lead, desk.ines, { id }, file("long.bin", long)));
    const wanted = { code, name: "long.bin", sha256: document?.sha256 ?? "" };
    const enclosed = done(await attachDocument(tray.deps, desk.lead, wanted));
    const sent = done(await answers(await desk.arrive(), [enclosed.id]));
    done(await removeDocument(tray.deps, desk.lead, { id }, document?.id ?? ""));
    expect(await readDocument(tray.deps, desk.lead, code, document?.id ?? "")).toBeNull();
    tray.clock.now = later(tray.clock.now as Instant, 181 * DAY);
    await forgetDraftAttachments(tray.deps);
    const read = await readAttachment(tray.deps, desk.lead, sent, 0);
    expect(Buffer.from(read?.content ?? []).equals(long)).toBe(true);
    expect(refusal(await answers(await desk.arrive(), [enclosed.id]))).toBe("attachment-gone");
  });

  it("that no message, record or draft needs are given back", async () => {
    const alone = await kept(file("alone.bin", randomBytes(5_000)));
    const { id } = await desk.opensRecord("Alone");
    const document = done(
      await addDocument(tray.deps, desk.lead, desk.ines, { id }, file("a.bin", randomBytes(5_000))),
    );
    const count = async () => (await tray.ask("select count(*)::int as n from blob where size = 5000"))[0].n;
    expect(await count()).toBe(2);
    done(await removeDocument(tray.deps, desk.lead, { id }, document?.id ?? ""));
    expect(await count()).toBe(1);
    await forgetDraftAttachments(tray.deps);
    expect(refusal(await answers(await desk.arrive(), [alone.id]))).toBe("done");
    tray.clock.now = later(tray.clock.now as Instant, 181 * DAY);
    await forgetDraftAttachments(tray.deps);
    expect(await count()).toBe(0);
  });
});
