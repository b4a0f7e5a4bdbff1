import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { postOf } from "@tests/support/post-of";
import { worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "vitest";
import type { EmailAddress } from "../../core/kernel/email-address";
import type { ConversationId, RuleId } from "../../core/kernel/ids";
import type { RuleAction } from "../../core/rules/rule";
import { dropRule, editGroup, editRule, getJournal, openConversation, runBulk, startRuleRun } from "../index.server";

let tray: TestTray;
let desk: Desk;
const kept: RuleId[] = [];
const { comes, wentOut } = postOf(() => tray);

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());
afterEach(async () => {
  for (const id of kept.splice(0)) done(await dropRule(tray.deps, desk.lead, id, true));
  await wentOut();
});

const drafted = (actions: readonly RuleAction[]) => ({
  ...{ id: null, name: `Tin ${kept.length}`, isOn: true, isLast: false, exception: null, actions },
  condition: worded("subject", "words", "tin"),
});
const keep = async (...actions: RuleAction[]) => {
  const id = done(await editRule(tray.deps, desk.lead, drafted(actions)));
  kept.push(id);
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
};
const docketOf = async (id: ConversationId) => (await openConversation(tray.deps, desk.lead, id))?.docket;
const elsewhere = "workshop@elsewhere.example" as EmailAddress;

describe("what a rule sends on", () => {
  it("is forwarded as a part of a message of ours, which moves nothing, and says which rule did it", async () => {
    await keep({ kind: "forward", to: elsewhere });
    const { id, messageId } = await comes({ subject: "Tin, two bars" });
    const [sent, ...more] = await wentOut();
    expect([sent?.to, more]).toEqual([[elsewhere], []]);
    for (const line of [
      "Subject: Fwd: Tin, two bars",
      "Auto-Submitted: auto-generated",
      "Content-Type: message/rfc822",
      `Message-ID: <${messageId}>`,
      "X-Loop: office@ottermoor.example",
    ])
      expect(sent?.text.toLowerCase()).toContain(line.toLowerCase());
    const opened = await openConversation(tray.deps, desk.lead, id);
    expect(opened?.docket).toMatchObject({ standing: { kind: "to-sort" }, turn: { kind: "us" } });
    expect(opened?.messages.map(({ direction, kind }) => [direction, kind])).toEqual([
      ["in", "person"],
      ["out", "automatic"],
    ]);
  });

  it("is redirected as it is, with fields that say so before all others (RFC 5322 3.6.6)", async () => {
    await keep({ kind: "redirect", to: elsewhere });
    const { id, messageId } = await comes({ subject: "Tin, three bars", body: "As drawn." });
    const [sent] = await wentOut();
    expect(sent?.to).toEqual([elsewhere]);
    const [head = ""] = (sent?.text ?? "").split("\r\n\r\n");
    expect(head.split("\r\n").slice(0, 5)).toEqual([
      "Resent-From: <office@ottermoor.example>",
      `Resent-To: <${elsewhere}>`,
      expect.stringMatching(/^Resent-Date: \w{3}, \d\d \w{3} \d{4} \d\d:\d\d:\d\d \+0000$/),
      expect.stringMatching(/^Resent-Message-ID: <.+@ottermoor\.example>$/),
      "X-Loop: office@ottermoor.example",
    ]);
    expect(head).toContain(`Message-ID: <${messageId}>`);
    expect(head).toContain("Subject: Tin, three bars");
    expect(sent?.text).toContain("As drawn.");
    // What answers the one that came still finds it.
    const answer = await comes({ inReplyTo: messageId, subject: "Re: bars" });
    expect(answer.id).toBe(id);
  });

  it("goes once to each address, not where it went through here before, nor where it is thrown away", async () => {
    await keep({ kind: "redirect", to: elsewhere }, { kind: "forward", to: elsewhere });
    await comes({ subject: "Tin again" });
    expect(await wentOut()).toHaveLength(1);
    await comes({ subject: "Tin comes round", headers: { "X-Loop": "office@ottermoor.example" } });
    await comes({ subject: "Tin of ours", from: "Ottermoor <office@ottermoor.example>" });
    expect(await wentOut()).toEqual([]);
    await keep({ kind: "bin" });
    await comes({ subject: "Tin for the bin" });
    expect(await wentOut()).toEqual([]);
  });

  it("is not sent when the rule is run over what is there", async () => {
    const id = await keep({ kind: "forward", to: elsewhere });
    await wentOut();
    await runBulk(tray.deps, done(await startRuleRun(tray.deps, desk.lead, id, "Tin")));
    expect(await wentOut()).toEqual([]);
  });

  it.each<[string, RuleAction, string]>([
    ["an address of ours", { kind: "redirect", to: "office+bars@ottermoor.example" as EmailAddress }, "comes"],
    ["no address", { kind: "forward", to: "elsewhere" as EmailAddress }, "address"],
    ["no text", { kind: "answer", text: " ", days: 7 }, "text"],
    ["no number of days", { kind: "answer", text: "We have it.", days: 0 }, "days"],
  ])("cannot go to %s", async (_, action, word) => {
    const refused = await editRule(tray.deps, desk.lead, drafted([action]));
    if (refused.ok || refused.error.kind !== "problems") throw new Error("it was kept");
    expect(JSON.stringify(inEnglish(refused.error.problems.actions))).toMatch(
      new RegExp(word === "comes" ? "come back" : word),
    );
  });
});

describe("what a rule answers", () => {
  it("goes by RFC 3834, once a person in so many days, and is counted with the other answers", async () => {
    await keep({ kind: "answer", text: "We have your tin.", days: 3 });
    await comes({ subject: "Tin" });
    await comes({ subject: "More tin" });
    const sent = await wentOut();
    expect(sent.map(({ from, to }) => [from, to])).toEqual([["", ["perpetua.vane@vanehouse.example"]]]);
    expect(sent[0]?.text).toContain("We have your tin.");
    expect(sent[0]?.text).toContain("Auto-Submitted: auto-replied");
    await comes({ subject: "Tin news", headers: { "List-Id": "<tin.example>" } });
    await comes({ subject: "No such metal", sender: "another@x.example" });
    expect(await wentOut()).toEqual([]);
    passes(tray, 3 * 24 * 60 + 1);
    await comes({ subject: "Tin" });
    expect(await wentOut()).toHaveLength(1);
  });
});

describe("whom a rule assigns to, and tells", () => {
  it("is in turn whoever of a group has least, and stays with whoever of it has it", async () => {
    const memberIds = [desk.mara.id, desk.tobias.id];
    const groupId = done(await editGroup(tray.deps, desk.lead, { id: null, name: "Workshop", memberIds }));
    await keep({ kind: "assign-in-turn", groupId });
    const owners = [];
    for (let at = 0; at < 4; at += 1) owners.push((await docketOf((await comes({ subject: "Tin" })).id))?.ownerId);
    expect(owners.toSorted()).toEqual([...memberIds, ...memberIds].toSorted());
  });

  it("is whoever had something of this person, or of its record, before", async () => {
    const first = await comes({ subject: "A bell", from: "Bram <bram@veldthall.example>" });
    await desk.does(desk.lead, first.id, { kind: "assign", ownerId: desk.mara.id });
    await keep({ kind: "assign-as-before", by: "person" });
    const second = await comes({ subject: "Tin for it", from: "Bram <bram@veldthall.example>" });
    expect((await docketOf(second.id))?.ownerId).toBe(desk.mara.id);
    const stranger = await comes({ subject: "Tin for another", from: "Nobody <nobody.yet@x.example>" });
    expect((await docketOf(stranger.id))?.ownerId).toBeNull();

    const record = await desk.opensRecord("The bell of Veldt");
    await desk.does(desk.lead, first.id, { kind: "file", recordId: record.id, settle: false });
    await keep({ kind: "file", recordId: record.id }, { kind: "assign-as-before", by: "record" });
    const third = await comes({ subject: "Tin of a third", from: "Third <third@x.example>" });
    expect((await docketOf(third.id))?.ownerId).toBe(desk.mara.id);
  });

  it("is told of each message, with the rule’s name, and the journal has it", async () => {
    const id = await keep({ kind: "tell", memberId: desk.tobias.id });
    const { id: one } = await comes({ subject: "Tin" });
    const told = await tray.ask(
      "select event, detail->>'words' as words from notification where member_id = $1 and conversation_id = $2",
      [desk.tobias.id, one],
    );
    expect(told).toEqual([{ event: "rule", words: "Tin 0" }]);
    const { steps } = await getJournal(tray.deps, desk.lead, { by: null, kind: null, before: null, rule: id });
    expect(steps.map(({ words, mayUndo }) => [inEnglish(words), mayUndo])).toEqual([["told Tobias Lund of it", false]]);
  });
});
