import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { address, passes, setUpParts, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { ConversationId, EntryId } from "../../core/kernel/ids";
import {
  type Answer,
  answerConversation,
  bePresent,
  decide,
  editNote,
  emptyBins,
  getJournal,
  giveUpDraft,
  handDraft,
  joinConversations,
  leavePage,
  listNotifications,
  openConversation,
  receiveMessage,
  returnDraft,
  sendMessage,
  type TrayGrant,
  undoNewest,
  whoIsPresent,
} from "../index.server";

let desk: Desk;
let id: ConversationId;
beforeAll(async () => {
  const tray = await testTray();
  desk = await setUpDesk(tray);
  await setUpParts(tray.deps);
});
beforeEach(async () => {
  id = await desk.arrive();
});
afterAll(() => desk.tray.close());

const target = () => ({ ids: [id], seenVersion: null });
const note = (who: TrayGrant, text: string) => decide(desk.tray.deps, who, target(), { kind: "note", text });
const open = async () => {
  const opened = await openConversation(desk.tray.deps, desk.lead, id);
  if (opened === null) throw new Error("it is not there");
  return opened;
};
const noteId = async () => (await open()).journal.find(({ effect }) => effect.kind === "noted")?.id as EntryId;
const PAGE = "01900000-0000-7000-8000-0000000000aa";
const OTHER = "01900000-0000-7000-8000-0000000000bb";

describe("a note", () => {
  it("tells whom it names, once, and not whoever wrote it", async () => {
    done(await note(desk.grant, "@Tobias and @Ines: is the key there? @Tobias?"));
    const [told, ...others] = (await listNotifications(desk.tray.deps, desk.tobiasGrant)).filter(
      ({ conversationId }) => conversationId === id,
    );
    expect([told?.event, told?.words, others]).toEqual([
      "mentioned",
      "@Tobias and @Ines: is the key there? @Tobias?",
      [],
    ]);
    expect(
      (await listNotifications(desk.tray.deps, desk.grant)).filter(({ conversationId }) => conversationId === id),
    ).toEqual([]);
  });

  it("that names somebody who may not look is refused, and says whom", async () => {
    expect(inEnglish(await note(desk.grant, "@Col Whitaker knows"))).toMatchObject({
      error: { kind: "no-access", names: ["Col Whitaker"] },
    });
    expect((await open()).journal).toEqual([]);
  });

  it("is written anew by its writer for half an hour; who is named only now is told now", async () => {
    done(await note(desk.grant, "is the key there?"));
    const entry = await noteId();
    const edit = async (who: TrayGrant, text: string) =>
      refusal(await editNote(desk.tray.deps, who, target(), entry, text));
    expect(await edit(desk.tobiasGrant, "mine")).toBe("not-your-note");
    expect(await edit(desk.grant, "@Mara, is the key there?")).toBe("done");
    expect(await edit(desk.grant, "@Mara, is the key there yet?")).toBe("done");
    const told = (await listNotifications(desk.tray.deps, desk.maraGrant)).filter(
      ({ conversationId }) => conversationId === id,
    );
    expect(told.map(({ event }) => event)).toEqual(["mentioned"]);
    passes(desk.tray, 31);
    expect(await edit(desk.grant, "too late")).toBe("note-stands");
    expect(refusal(await editNote(desk.tray.deps, desk.grant, target(), PAGE as EntryId, "x"))).toBe("no-such");
  });

  it("leads to the records and conversations that it names", async () => {
    const other = await desk.arrive({ subject: "The other matter" });
    done(await note(desk.grant, `see http://tray.example/office/to-sort/${other}`));
    expect((await open()).named.conversations).toEqual([
      { id: other, subject: "The other matter", standing: "to-sort" },
    ]);
  });
});

describe("who is present", () => {
  const here = (who: TrayGrant, pageId: string, doing: "looking" | "writing") =>
    bePresent(desk.tray.deps, who, { pageId, conversationId: id, doing });
  it("is seen by the others, not by herself, until her page is gone or silent", async () => {
    await here(desk.tobiasGrant, PAGE, "looking");
    await here(desk.maraGrant, OTHER, "writing");
    const seen = async (who: TrayGrant) => (await whoIsPresent(desk.tray.deps, who, id)).map(({ doing }) => doing);
    expect((await seen(desk.grant)).toSorted()).toEqual(["looking", "writing"]);
    expect(await seen(desk.maraGrant)).toEqual(["looking"]);
    await leavePage(desk.tray.deps, desk.maraGrant, OTHER, id);
    expect(await seen(desk.grant)).toEqual(["looking"]);
    passes(desk.tray, 1);
    expect(await seen(desk.grant)).toEqual([]);
  });

  it("takes nobody else's page, and no conversation of another tray", async () => {
    await here(desk.tobiasGrant, PAGE, "looking");
    expect(await here(desk.maraGrant, PAGE, "writing")).toBe(false);
    const other = { pageId: OTHER, conversationId: PAGE as ConversationId, doing: "looking" as const };
    expect(await bePresent(desk.tray.deps, desk.grant, other)).toBe(false);
    await leavePage(desk.tray.deps, desk.tobiasGrant, PAGE, id);
  });
});

describe("an answer that crosses another", () => {
  const answer = (part: Partial<Answer> = {}): Answer => ({
    to: [{ name: "", address: address("vane@vanehouse.example") }],
    cc: [],
    subject: "Re",
    html: "<p>Yes.</p>",
    after: { kind: "settle" },
    ...part,
  });
  const send = async (part: Partial<Answer> = {}) =>
    refusal(await answerConversation(desk.tray.deps, desk.grant, desk.ines, id, answer(part)));

  it("is held up while a colleague writes, and goes when one insists", async () => {
    await bePresent(desk.tray.deps, desk.tobiasGrant, { pageId: PAGE, conversationId: id, doing: "writing" });
    expect(await send()).toBe("also-writing");
    expect((await open()).messages).toHaveLength(1);
    expect(await send({ anyway: true })).toBe("done");
    await leavePage(desk.tray.deps, desk.tobiasGrant, PAGE, id);
  });

  it("is held up when a colleague answered since it was begun", async () => {
    const { version } = (await open()).row;
    await desk.answers(desk.tobias, id);
    expect(await send({ seenVersion: version })).toBe("answered-meanwhile");
    expect(await send({ seenVersion: (await open()).row.version })).toBe("done");
  });

  it("is held up when a message came since, and not by a machine's", async () => {
    const { version } = (await open()).row;
    await desk.arrive({ into: id });
    expect(await send({ seenVersion: version })).toBe("new-message");
  });
});

describe("a shared draft", () => {
  const content = {
    to: "vane@vanehouse.example",
    cc: "",
    subject: "Re",
    html: "<p>Tuesday at nine.</p>",
    after: "settle" as const,
    day: "",
  };
  const hand = (part: object = {}) =>
    handDraft(desk.tray.deps, desk.grant, id, {
      content,
      to: desk.tobias.id,
      note: "please check",
      seen: null,
      ...part,
    });
  const first = async () => (await open()).drafts[0];

  it("is handed over, returned with a note, handed over again and sent; each is told and in the journal", async () => {
    done(await hand());
    expect(await first()).toMatchObject({ holderId: desk.tobias.id, state: "to-check", text: "Tuesday at nine." });
    const seen = async () => ({ id: (await first())?.id as never, version: (await first())?.version ?? 0 });
    done(await returnDraft(desk.tray.deps, desk.tobiasGrant, id, await seen(), "Wednesday"));
    expect(await first()).toMatchObject({ holderId: desk.ines.id, state: "returned", note: "Wednesday" });
    const later = { ...content, html: "<p>Wednesday at nine.</p>" };
    done(await hand({ content: later, seen: await seen() }));
    const to = [{ name: "", address: address("vane@vanehouse.example") }];
    const answer = { to, cc: [], subject: "Re", html: later.html, after: { kind: "settle" as const } };
    const draft = await seen();
    const tobias = await desk.grantNow(desk.tobias);
    done(await answerConversation(desk.tray.deps, tobias, desk.tobias, id, { ...answer, draft }));
    expect(await first()).toBeUndefined();
    const told = (await open()).journal.map(({ effect }) => effect.kind);
    expect(told).toEqual(["draft-handed", "draft-returned", "draft-handed", "settled"]);
    expect((await listNotifications(desk.tray.deps, desk.grant))[0]).toMatchObject({
      event: "draft",
      words: "Wednesday",
    });
    expect(refusal(await answerConversation(desk.tray.deps, tobias, desk.tobias, id, { ...answer, draft }))).toBe(
      "draft-changed",
    );
  });

  it("that another one changed meanwhile is not overwritten", async () => {
    done(await hand());
    const old = { id: (await first())?.id as never, version: (await first())?.version ?? 0 };
    done(await hand({ seen: old, note: "now?" }));
    expect(refusal(await hand({ seen: old, note: "mine" }))).toBe("draft-changed");
    expect(refusal(await returnDraft(desk.tray.deps, desk.tobiasGrant, id, old, "no"))).toBe("draft-changed");
    expect(refusal(await giveUpDraft(desk.tray.deps, desk.tobiasGrant, id, old))).toBe("draft-changed");
    expect((await first())?.note).toBe("now?");
  });

  it("stands on when its sending is held up", async () => {
    done(await hand());
    const draft = { id: (await first())?.id as never, version: (await first())?.version ?? 0 };
    await bePresent(desk.tray.deps, desk.maraGrant, { pageId: PAGE, conversationId: id, doing: "writing" });
    const to = [{ name: "", address: address("vane@vanehouse.example") }];
    const answer = { to, cc: [], subject: "Re", html: "<p>x</p>", after: { kind: "settle" as const }, draft };
    const send = (part: object) =>
      answerConversation(desk.tray.deps, desk.tobiasGrant, desk.tobias, id, { ...answer, ...part });
    expect(refusal(await send({}))).toBe("also-writing");
    expect((await first())?.version).toBe(draft.version);
    expect(refusal(await send({ anyway: true }))).toBe("done");
    await leavePage(desk.tray.deps, desk.maraGrant, PAGE, id);
  });

  it("is found where its conversation was joined to, and goes with it when the bin is emptied", async () => {
    done(await hand());
    const whole = await desk.arrive();
    done(await joinConversations(desk.tray.deps, desk.grant, whole, id));
    const drafts = async () => (await openConversation(desk.tray.deps, desk.lead, whole))?.drafts ?? [];
    expect((await drafts()).map(({ note }) => note)).toEqual(["please check"]);
    const told = (await listNotifications(desk.tray.deps, desk.tobiasGrant))[0];
    expect([told?.event, told?.conversationId, told?.standing]).toEqual(["draft", whole, "to-sort"]);
    await desk.does(desk.grant, whole, { kind: "bin" });
    passes(desk.tray, 31 * 24 * 60);
    await emptyBins(desk.tray.deps);
    expect(await desk.tray.ask("select 1 from draft where conversation_id = $1", [id])).toEqual([]);
    id = await desk.arrive();
  });

  it("is no step to undo: no journal offers it, and the key goes on to what was decided before", async () => {
    await desk.does(desk.grant, id, { kind: "urgency", urgency: "today" });
    passes(desk.tray, 1);
    done(await hand());
    const { steps } = await getJournal(desk.tray.deps, desk.grant, { by: null, kind: "together", before: null });
    expect(inEnglish(steps.slice(0, 1).map(({ words, mayUndo }) => [words, mayUndo]))).toEqual([
      ["gave Tobias Lund a draft to check and send", false],
    ]);
    done(await undoNewest(desk.tray.deps, desk.grant));
    expect((await open()).docket.urgency).toBe("no-rush");
    expect(await first()).toBeDefined();
  });

  it("goes to nobody who reads only, and readers hand over none", async () => {
    expect(refusal(await hand({ to: desk.reader.memberId }))).toBe("only-reads");
    const given = { content, to: desk.tobias.id, note: "", seen: null };
    expect(refusal(await handDraft(desk.tray.deps, desk.reader, id, given))).toBe("readers-only-read");
    expect((await open()).drafts).toEqual([]);
  });
});

describe("a conversation that is passed on outside", () => {
  const THRANE = "thrane@heritage.example";
  const passOn = async (part: Partial<Answer> = {}) => {
    const passesOn = (await open()).messages[0]?.id ?? null;
    const to = [{ name: "L. Thrane", address: address(THRANE) }];
    const letter = { to, cc: [], subject: "Fwd: Letter", html: "<p>Could you answer?</p>", passesOn };
    const until = null;
    return answerConversation(desk.tray.deps, desk.grant, desk.ines, id, {
      ...letter,
      after: { kind: "expect", until },
      ...part,
    });
  };
  const sentNow = async () => {
    desk.tray.handedOver.length = 0;
    for (const job of desk.tray.jobs.splice(0)) {
      if (job.kind === "send-message") await sendMessage(desk.tray.deps, job.messageId, { number: 1, last: true });
    }
    return desk.tray.handedOver.map(({ envelope, raw }) => [envelope.to, Buffer.from(raw).toString("utf8")] as const);
  };

  it("carries the whole message, expects the answer of whom it went to, and answers nobody", async () => {
    await sentNow();
    done(await passOn());
    const [[to, text] = [[], ""], ...others] = await sentNow();
    expect([to, others]).toEqual([[THRANE], []]);
    expect(text).toMatch(/Content-Type: message\/rfc822/);
    expect(text).toContain("Would a Tuesday be possible?");
    expect(text.slice(0, text.indexOf("\r\n\r\n"))).not.toMatch(/In-Reply-To|References/);
    const { docket, messages } = await open();
    expect(docket.standing.kind).toBe("waiting");
    expect(docket.expectations.map(({ from }) => from)).toEqual([[THRANE]]);
    expect(messages.at(-1)?.attachments.map(({ fileName }) => fileName)).toEqual(["message.eml"]);
  });

  it("goes without the message and its files where only its words are to go", async () => {
    await sentNow();
    done(await passOn({ wordsOnly: true }));
    const [[to, text] = [[], ""], ...others] = await sentNow();
    expect([to, others]).toEqual([[THRANE], []]);
    expect(text).toContain("Could you answer?");
    expect(text).not.toMatch(/message\/rfc822|In-Reply-To/);
    expect((await open()).messages.at(-1)?.attachments).toEqual([]);
  });

  it("tells whoever wrote where that is wanted, and the answer comes back to it", async () => {
    await sentNow();
    done(await passOn({ informs: "Passed on to <Mrs Thrane>.\n\nInes" }));
    const sent = await sentNow();
    expect(sent.map(([to]) => to)).toEqual([[THRANE], ["perpetua.vane@vanehouse.example"]]);
    expect(sent[1]?.[1]).toContain("Passed on to &lt;Mrs Thrane&gt;.");
    expect(sent[1]?.[1]).toMatch(/In-Reply-To/);
    const asked = (await open()).messages.find(({ recipients }) => recipients.to[0]?.address === THRANE)?.messageId;
    const raw = aMessage({
      id: "t1@heritage.example",
      from: THRANE,
      subject: "Re: Fwd: Letter",
      inReplyTo: asked ?? "",
    });
    const recipients = [address("office@ottermoor.example")];
    const [kept] = await receiveMessage(desk.tray.deps, { raw, envelopeSender: THRANE, recipients });
    expect(kept?.conversationId).toBe(id);
    expect((await open()).docket).toMatchObject({
      standing: { kind: "our-move" },
      expectations: [{ state: "answered" }],
    });
  });

  it("is a message of this conversation, or nothing is sent", async () => {
    const elsewhere = (await openConversation(desk.tray.deps, desk.lead, await desk.arrive()))?.messages[0]?.id ?? null;
    expect(refusal(await passOn({ passesOn: elsewhere }))).toBe("no-such");
    expect((await open()).messages).toHaveLength(1);
  });
});

it("no word of a note, of an assignment or of a draft's note ever goes out", async () => {
  const secret = "do not tell the verger";
  done(await note(desk.grant, secret));
  await desk.does(desk.grant, id, { kind: "assign", ownerId: desk.tobias.id, note: secret });
  const content = { to: "", cc: "", subject: "", html: `<p>${secret}</p>`, after: "settle" as const, day: "" };
  done(await handDraft(desk.tray.deps, desk.grant, id, { content, to: desk.tobias.id, note: secret, seen: null }));
  await desk.answers(desk.ines, id, "<p>We come on Tuesday.</p>");
  await desk.arrive({ into: id });
  await desk.answers(desk.tobias, id, "<p>At nine.</p>");
  for (const job of desk.tray.jobs) {
    if (job.kind === "send-message") await sendMessage(desk.tray.deps, job.messageId, { number: 1, last: true });
  }
  const sent = desk.tray.handedOver.map(({ raw }) => Buffer.from(raw).toString("utf8"));
  expect(sent.filter((text) => text.includes("We come on Tuesday.")).length).toBe(1);
  expect(sent.filter((text) => text.includes("verger"))).toEqual([]);
});
