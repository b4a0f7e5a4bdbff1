import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { addressed, worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type CategoryId, type MessageId, type RecordId, type RuleId, trustedId } from "../../core/kernel/ids";
import type { Condition } from "../../core/rules/condition";
import type { RuleAction } from "../../core/rules/rule";
import {
  dropRule,
  editRule,
  getJournal,
  getRules,
  importInto,
  learnRule,
  openConversation,
  placeRules,
  type RuleDraft,
  retireCategory,
  runBulk,
  setUpCategories,
  setUpRecords,
  startRuleRun,
  tryRule,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let invoices: CategoryId;
let tin: CategoryId;
let receipts: CategoryId;
let supplier: RecordId;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const made = await setUpCategories(tray.deps, [
    { code: "IN", name: "Invoices", ink: "moss", parentCode: null },
    { code: "TI", name: "Tin", ink: "olive", parentCode: null },
    { code: "RE", name: "Receipts", ink: "slate", parentCode: null },
  ]);
  [invoices, tin, receipts] = made.map(({ id }) => id) as [CategoryId, CategoryId, CategoryId];
  const [record] = await setUpRecords(tray.deps, [
    { code: "C-1", title: "Dombach", kind: "client", parentCode: null, closed: false },
  ]);
  supplier = record?.id ?? trustedId("");
});
afterAll(() => tray.close());

const give = (categoryId: CategoryId): RuleAction => ({ kind: "categorise", categoryId, give: true });
const draft = (given: Partial<RuleDraft> = {}): RuleDraft => ({
  id: null,
  name: "Dombach’s invoices",
  isOn: true,
  isLast: false,
  exception: null,
  condition: { kind: "all", of: [addressed("from", "@dombach.example"), worded("subject", "words", "invoice")] },
  actions: [give(invoices), { kind: "file", recordId: supplier }, { kind: "assign", ownerId: desk.mara.id }],
  ...given,
});
const keep = async (given: Partial<RuleDraft> = {}) => {
  const id = done(await editRule(tray.deps, desk.lead, draft(given)));
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
};
const drop = async (id: RuleId) => {
  done(await dropRule(tray.deps, desk.lead, id, true));
  passes(tray, 1);
};
const invoice = (given: Parameters<Desk["arrive"]>[0] = {}) =>
  desk.arrive({ from: "billing@dombach.example", subject: "Invoice 7", ...given });
const docketOf = async (id: Parameters<typeof openConversation>[2]) =>
  (await openConversation(tray.deps, desk.lead, id))?.docket;

describe("a rule", () => {
  it("acts on what arrives, says why in the journal, tells the owner, and is undone from there", async () => {
    const id = await keep();
    const one = await invoice();
    expect(await docketOf(one)).toMatchObject({
      ownerId: desk.mara.id,
      categoryIds: [invoices],
      recordIds: [supplier],
      standing: { kind: "our-move" },
    });
    expect((await docketOf(await invoice({ from: "elsewhere@x.example" })))?.categoryIds).toEqual([]);
    const { steps } = await getJournal(tray.deps, desk.lead, { by: "tray", kind: null, before: null });
    const [step] = steps.filter(({ conversationId }) => conversationId === one);
    expect(inEnglish(step)).toMatchObject({
      rule: { name: "Dombach’s invoices", why: "from @dombach.example, with “invoice” in the subject" },
      mayUndo: true,
      by: null,
    });
    expect(
      inEnglish(step?.words)
        ?.split(/ and |, /)
        .toSorted(),
    ).toEqual(["added Invoices", "assigned it to Mara Quell", "filed it to C-1"]);
    const told = await tray.ask("select event from notification where member_id = $1 and conversation_id = $2", [
      desk.mara.id,
      one,
    ]);
    expect(told).toEqual([{ event: "assigned" }]);
    done(await undoBatch(tray.deps, desk.lead, step?.batchId ?? trustedId("")));
    expect(await docketOf(one)).toMatchObject({
      ownerId: null,
      categoryIds: [],
      recordIds: [],
      standing: { kind: "to-sort" },
    });
    await drop(id);
  });

  it("leaves alone what a colleague decided, when more comes into it", async () => {
    const id = await keep();
    const one = await invoice();
    await desk.does(
      desk.lead,
      one,
      { kind: "categorise", categoryId: invoices, give: false },
      { kind: "assign", ownerId: desk.ines.id },
    );
    await invoice({ into: one, subject: "Re: Invoice 7" });
    expect(await docketOf(one)).toMatchObject({ ownerId: desk.ines.id, categoryIds: [] });
    await drop(id);
  });

  it("acts after the ones before it, and not when it is off, taken away or its category retired", async () => {
    const first = await keep({ name: "first", isLast: true, actions: [give(tin)] });
    const second = await keep({ name: "second", actions: [give(invoices)] });
    expect((await docketOf(await invoice()))?.categoryIds).toEqual([tin]);
    done(await placeRules(tray.deps, desk.lead, [second, first]));
    passes(tray, 1);
    expect((await getRules(tray.deps, desk.lead)).map(({ name }) => name)).toEqual(["second", "first"]);
    expect((await docketOf(await invoice()))?.categoryIds?.toSorted()).toEqual([invoices, tin].toSorted());
    await keep({ id: second, name: "second", isOn: false });
    await drop(first);
    expect((await docketOf(await invoice()))?.categoryIds).toEqual([]);
    done(await dropRule(tray.deps, desk.lead, first, false));
    done(await retireCategory(tray.deps, desk.lead, tin));
    passes(tray, 1);
    expect((await docketOf(await invoice()))?.categoryIds).toEqual([]);
    await drop(first);
    await drop(second);
  });

  it("does not act on history, nor on what we wrote, and does on what is brought over as new", async () => {
    const id = await keep({
      condition: worded("subject", "words", "brought"),
      actions: [{ kind: "urgency", urgency: "today" }],
    });
    const bring = async (name: string, from: string, asHistory: boolean) => {
      const raw = aMessage({ id: name, subject: `Brought over ${name}`, from });
      await importInto(
        tray.deps,
        desk.lead.tray,
        (async function* () {
          yield raw;
        })(),
        { asHistory, goesOn: () => true },
      );
      const [row] = await tray.ask(
        "select urgency from conversation join message on conversation_id = conversation.id where message_id = $1",
        [name],
      );
      return row.urgency;
    };
    expect(await bring("new@x.example", "a@x.example", false)).toBe(3);
    expect(await bring("old@x.example", "a@x.example", true)).toBe(1);
    expect(await bring("ours@x.example", "office@ottermoor.example", false)).toBe(1);
    await drop(id);
  });

  it("is tried on what came before it is kept, beside what people did with it", async () => {
    const [same, elsewhere] = [await invoice({ subject: "Invoice A" }), await invoice({ subject: "Invoice B" })];
    await invoice({ subject: "Invoice C" });
    await desk.does(desk.lead, same, { kind: "categorise", categoryId: receipts, give: true });
    await desk.does(desk.lead, elsewhere, { kind: "categorise", categoryId: invoices, give: true });
    const other = await keep({ name: "stops before", condition: worded("subject", "words", "B"), isLast: true });
    const tried = done(await tryRule(tray.deps, desk.lead, draft({ actions: [give(receipts)] })));
    expect(inEnglish(tried.newest.slice(0, 3).map(({ subject, why, otherwise }) => [subject, why, otherwise]))).toEqual(
      [
        ["Invoice C", "from @dombach.example, with “invoice” in the subject", null],
        ["Invoice B", "from @dombach.example, with “invoice” in the subject", "has Invoices"],
        ["Invoice A", "from @dombach.example, with “invoice” in the subject", null],
      ],
    );
    expect(tried.against[0]?.subject).toBe("Invoice B");
    expect(tried.same + tried.otherwise + tried.fresh).toBe(tried.count);
    expect(tried.of).toBeGreaterThan(tried.count);
    expect(tried.next).toBeNull();
    expect(tried.others).toEqual([{ id: other, name: "stops before", count: 1, isLast: true, isBefore: true }]);
    expect(tried.months.reduce((sum, { count }) => sum + count, 0)).toBe(tried.count);
    const [, second] = tried.newest;
    const place = { at: second?.at ?? tray.deps.now(), id: second?.id ?? trustedId<MessageId>("") };
    const earlier = done(await tryRule(tray.deps, desk.lead, draft(), place));
    expect([earlier.newest[0]?.subject, earlier.count]).toEqual(["Invoice A", tried.count - 2]);
    await drop(other);
  });

  it("is run over what is there: what people decided stays, and all of it is taken back as one step", async () => {
    const [fresh, decided, elsewhere] = [await invoice(), await invoice(), await desk.arrive({ from: "a@x.example" })];
    await desk.does(desk.lead, decided, { kind: "assign", ownerId: desk.ines.id });
    const id = await keep({ actions: [give(receipts), { kind: "assign", ownerId: desk.mara.id }] });
    const run = done(await startRuleRun(tray.deps, desk.lead, id, "Rule over all"));
    await runBulk(tray.deps, run);
    expect(await docketOf(fresh)).toMatchObject({ categoryIds: [receipts], ownerId: desk.mara.id });
    expect(await docketOf(decided)).toMatchObject({ categoryIds: [receipts], ownerId: desk.ines.id });
    expect((await docketOf(elsewhere))?.categoryIds).toEqual([]);
    const [kept] = await tray.ask(
      "select total_changed.changed, state, batch_id from bulk_run as total_changed where id = $1",
      [run],
    );
    expect(kept).toMatchObject({ state: "done" });
    expect(kept.changed).toBeGreaterThanOrEqual(2);
    // A second time there is nothing left to do.
    const again = done(await startRuleRun(tray.deps, desk.lead, id, "Again"));
    await runBulk(tray.deps, again);
    expect((await tray.ask("select changed from bulk_run where id = $1", [again]))[0].changed).toBe(0);
    done(await undoBatch(tray.deps, desk.lead, kept.batch_id));
    expect(await docketOf(fresh)).toMatchObject({ categoryIds: [], ownerId: null });
    expect(await docketOf(decided)).toMatchObject({ categoryIds: [], ownerId: desk.ines.id });
    expect(refusal(await startRuleRun(tray.deps, desk.maraGrant, id, "no"))).toBe("leads-only");
    await drop(id);
    expect(refusal(await startRuleRun(tray.deps, desk.lead, id, "gone"))).toBe("no-such");
  });

  it("is learned from chosen conversations: what they have in common, and what people did with them", async () => {
    const note = (at: number) =>
      desk.arrive({ from: "corvin@spelter.example", subject: `Delivery note ${4_400 + at}` });
    const ids = [];
    for (let at = 0; at < 8; at += 1) ids.push(await note(at));
    for (let at = 0; at < 6; at += 1)
      await desk.arrive({ from: "corvin@spelter.example", subject: `About ${at} pipes` });
    for (const id of ids.slice(0, 6))
      await desk.does(desk.lead, id, { kind: "categorise", categoryId: receipts, give: true }, { kind: "settle" });
    const { proposals, actions, examples } = done(await learnRule(tray.deps, desk.lead, ids.slice(0, 3)));
    expect(proposals[0]).toMatchObject({
      condition: worded("subject", "phrase", "delivery note"),
      takes: 3,
      count: 8,
      otherwise: 0,
    });
    expect(proposals[0]?.months.reduce((sum, { count }) => sum + count, 0)).toBe(8);
    expect(actions).toEqual([
      { action: give(receipts), byHand: 6 },
      { action: { kind: "settle" }, byHand: 6 },
    ]);
    expect(examples.map(({ subject }) => subject)).toEqual([
      "Delivery note 4402",
      "Delivery note 4401",
      "Delivery note 4400",
    ]);
    const stranger = await desk.arrive({ from: "q@elsewhere.example", subject: "Delivery note of mine" });
    const anew = done(await learnRule(tray.deps, desk.lead, ids.slice(0, 3), [stranger, ids[0] ?? stranger]));
    expect(anew.notMeant.map(({ id }) => id)).toEqual([stranger]);
    expect(anew.proposals[0]).toMatchObject({ takes: 3, count: 8 });
    expect(anew.proposals[0]?.condition).not.toEqual(proposals[0]?.condition);
    expect(refusal(await learnRule(tray.deps, desk.maraGrant, ids))).toBe("leads-only");
    expect(refusal(await learnRule(tray.deps, desk.lead, [trustedId(desk.ines.id)]))).toBe("no-such-conversation");
  });

  it("that would throw away most of what comes needs the tray’s name", async () => {
    const bins = draft({ name: "All", condition: { kind: "every" }, actions: [{ kind: "bin" }] });
    for (let at = 0; at < 20; at += 1) await desk.arrive({ from: "a@x.example", subject: `Letter ${at}` });
    const refused = await editRule(tray.deps, desk.lead, bins);
    expect(refused).toMatchObject({ error: { kind: "sweeping", trayName: desk.lead.tray.name } });
    expect(refusal(await editRule(tray.deps, desk.lead, bins, "another"))).toBe("sweeping");
    expect(refusal(await editRule(tray.deps, desk.lead, { ...bins, isOn: false }))).toBe("done");
    const [kept] = (await getRules(tray.deps, desk.lead)).filter(({ name }) => name === "All");
    const id = done(await editRule(tray.deps, desk.lead, { ...bins, id: kept?.id ?? null }, desk.lead.tray.name));
    await drop(id);
  });

  it("is refused with what is wrong, and to whoever does not lead", async () => {
    expect(inEnglish(await editRule(tray.deps, desk.lead, draft({ name: "" })))).toMatchObject({
      error: { kind: "problems", problems: { name: "Give the rule a name." } },
    });
    const to = (action: RuleAction) => editRule(tray.deps, desk.lead, draft({ actions: [action] }));
    expect(refusal(await to(give(trustedId(desk.ines.id))))).toBe("no-such");
    expect(refusal(await to({ kind: "file", recordId: trustedId(desk.ines.id) }))).toBe("no-such");
    expect(refusal(await to({ kind: "follow", memberId: trustedId(supplier) }))).toBe("no-such");
    expect(refusal(await to({ kind: "assign", ownerId: desk.reader.memberId }))).toBe("only-reads");
    const nobody: Condition = {
      kind: "address",
      where: "from",
      of: [{ kind: "contact", contactId: trustedId(supplier) }],
    };
    expect(refusal(await editRule(tray.deps, desk.lead, draft({ condition: nobody })))).toBe("no-such");
    expect(refusal(await editRule(tray.deps, desk.lead, draft({ id: trustedId(desk.ines.id) })))).toBe("no-such");
    for (const grant of [desk.maraGrant, desk.reader]) {
      expect(refusal(await editRule(tray.deps, grant, draft()))).toBe("leads-only");
      expect(refusal(await dropRule(tray.deps, grant, trustedId(desk.ines.id), true))).toBe("leads-only");
      expect(refusal(await placeRules(tray.deps, grant, []))).toBe("leads-only");
    }
  });
});
