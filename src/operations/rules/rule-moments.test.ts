import { type Desk, done, refusal, setUpDesk } from "@tests/support/desk";
import { all, worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "vitest";
import {
  type CategoryId,
  type ConversationId,
  type MessageId,
  type RoundId,
  type RuleId,
  trustedId,
} from "../../core/kernel/ids";
import { DAY, HOUR, later } from "../../core/kernel/instant";
import type { Condition } from "../../core/rules/condition";
import type { RuleAction, RuleMoment } from "../../core/rules/rule";
import {
  answerConversation,
  applyPassingRules,
  applySendingRules,
  dropRule,
  editRule,
  getJournal,
  openConversation,
  type RuleDraft,
  runBulk,
  sendMessage,
  setUpCategories,
  startRuleRun,
  tryRule,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let tin: CategoryId;
const kept: RuleId[] = [];

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const made = await setUpCategories(tray.deps, [{ code: "TI", name: "Tin", ink: "moss", parentCode: null }]);
  tin = made[0]?.id ?? trustedId("");
});
afterAll(() => tray.close());
afterEach(async () => {
  for (const id of kept.splice(0)) done(await dropRule(tray.deps, desk.lead, id, true));
});

const give = (): RuleAction => ({ kind: "categorise", categoryId: tin, give: true });
const draftOf = (
  moment: RuleMoment,
  condition: Condition,
  actions: readonly RuleAction[],
  more: Partial<RuleDraft> = {},
) => ({
  ...{ id: null, name: `At ${moment} ${kept.length}`, isOn: true, isLast: false, exception: null },
  ...{ condition, actions, times: { moment, from: null, until: null }, ...more },
});
async function keep(...given: Parameters<typeof draftOf>) {
  const id = done(await editRule(tray.deps, desk.lead, draftOf(...given)));
  kept.push(id);
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
}
const docketOf = async (id: ConversationId) => {
  const opened = await openConversation(tray.deps, desk.lead, id);
  if (opened === null) throw new Error("there is no such conversation");
  return opened.docket;
};
const look = () => applyPassingRules(tray.deps);
const subject = (word: string) => worded("subject", "words", word);

describe("a rule for what one of us sends", () => {
  const answer = async (id: ConversationId, after: { kind: "keep" } | { kind: "settle" }) => {
    const sent = await answerConversation(tray.deps, desk.lead, desk.ines, id, {
      ...{ to: [{ name: "", address: "mill@dombach.example" as never }], cc: [], subject: "Re: our offer", after },
      html: "<p>Our offer for the zither.</p>",
    });
    return done(sent);
  };
  // Twice, as a job that was cut off is begun anew.
  const goes = async (message: MessageId) => {
    await sendMessage(tray.deps, message, { number: 1, last: true });
    for (const job of tray.jobs.splice(0))
      if (job.kind === "rules-of-sent")
        for (let time = 0; time < 2; time += 1) await applySendingRules(tray.deps, job.trayId, job.messageId);
  };
  const out = async (id: ConversationId, after: { kind: "keep" } | { kind: "settle" }) => {
    const message = await answer(id, after);
    await goes(message);
  };

  it("acts once the message is out, on its conversation, and says so in the journal", async () => {
    const id = await keep("sending", subject("offer"), [give(), { kind: "expect", workingDays: 3 }]);
    const one = await desk.arrive({ subject: "A zither" });
    const message = await answer(one, { kind: "keep" });
    expect((await docketOf(one)).categoryIds).toEqual([]);
    await goes(message);
    expect(await docketOf(one)).toMatchObject({ categoryIds: [tin], standing: { kind: "waiting" } });
    expect((await docketOf(one)).expectations).toHaveLength(1);
    const { steps } = await getJournal(tray.deps, desk.lead, { by: "tray", kind: null, before: null, rule: id });
    expect(steps.map(({ conversationId, rule }) => [conversationId, rule?.version])).toEqual([[one, 1]]);
  });

  it("does not go against what its writer said is to come of it, nor acts on what came", async () => {
    await keep("sending", subject("offer"), [give(), { kind: "expect", workingDays: 3 }]);
    const one = await desk.arrive({ subject: "Another zither" });
    await out(one, { kind: "settle" });
    expect(await docketOf(one)).toMatchObject({ categoryIds: [tin], standing: { kind: "settled" } });
    expect((await docketOf(await desk.arrive({ subject: "Our offer" }))).categoryIds).toEqual([]);
  });

  it("is tried on what was sent, and run over it", async () => {
    const draft = draftOf("sending", subject("offer"), [{ kind: "urgency", urgency: "today" }], { name: "Offers" });
    const tried = done(await tryRule(tray.deps, desk.lead, draft));
    expect([tried.count, tried.of]).toEqual([2, 2]);
    const id = await keep("sending", draft.condition, draft.actions);
    await runBulk(tray.deps, done(await startRuleRun(tray.deps, desk.lead, id, "Offers")));
    const [first] = tried.newest;
    expect((await docketOf(first?.conversationId ?? trustedId(""))).urgency).toBe("today");
  });

  it("cannot hold anything", async () => {
    const hold: RuleAction = { kind: "hold", roundId: trustedId<RoundId>("00000000-0000-4000-8000-000000000000") };
    expect(refusal(await editRule(tray.deps, desk.lead, draftOf("sending", subject("offer"), [hold])))).toBe(
      "problems",
    );
  });
});

describe("a rule for what time passes over", () => {
  const unassigned = (word: string, hours = 2) =>
    all({ kind: "owner", of: [null] }, { kind: "standing-for", hours }, subject(word));

  it("acts when its working hours are over, on what is so then", async () => {
    await keep("passing", unassigned("harp"), [
      { kind: "assign", ownerId: desk.mara.id },
      { kind: "note", text: "Nobody took it." },
    ]);
    const [left, taken] = [await desk.arrive({ subject: "A harp" }), await desk.arrive({ subject: "A second harp" })];
    await desk.does(desk.lead, taken, { kind: "assign", ownerId: desk.ines.id });
    await look();
    expect((await docketOf(left)).ownerId).toBeNull();
    passes(tray, 4 * 24 * 60);
    await look();
    expect([(await docketOf(left)).ownerId, (await docketOf(taken)).ownerId]).toEqual([desk.mara.id, desk.ines.id]);
  });

  it("acts once on what stands where it stands, also where somebody took it back", async () => {
    const id = await keep("passing", unassigned("lute"), [give(), { kind: "note", text: "Look here." }]);
    const one = await desk.arrive({ subject: "A lute" });
    passes(tray, 4 * 24 * 60);
    await look();
    await look();
    const stepsOf = async () =>
      (await getJournal(tray.deps, desk.lead, { by: "tray", kind: null, before: null, rule: id })).steps;
    const [step, ...more] = await stepsOf();
    expect([step?.conversationId, more]).toEqual([one, []]);
    done(await undoBatch(tray.deps, desk.lead, step?.batchId ?? trustedId("")));
    await look();
    expect((await docketOf(one)).categoryIds).toEqual([]);
    // It stands anew once somebody wrote: then the rule is asked again.
    await desk.arrive({ into: one, subject: "A lute" });
    await desk.does(desk.lead, one, { kind: "settle" }, { kind: "keep" });
    passes(tray, 4 * 24 * 60);
    await look();
    expect((await stepsOf()).length).toBe(2);
  });

  it("asks no later rule about what an earlier one was the last for, also where that has acted before", async () => {
    await keep("passing", unassigned("viol"), [{ kind: "urgency", urgency: "today" }], { isLast: true });
    await keep("passing", unassigned("viol"), [give()]);
    const one = await desk.arrive({ subject: "A viol" });
    passes(tray, 4 * 24 * 60);
    await look();
    await look();
    expect(await docketOf(one)).toMatchObject({ urgency: "today", categoryIds: [] });
  });

  it("acts on what falls due soon, and within its own time only", async () => {
    const due: Condition = all({ kind: "due", hours: 9 }, subject("rebec"));
    const one = await desk.arrive({ subject: "A rebec" });
    const until = later(tray.clock.now, 20 * DAY);
    await desk.does(desk.lead, one, { kind: "expect", until, expectationId: trustedId(tray.deps.newId()) });
    await keep("passing", due, [give()], {
      times: { moment: "passing", from: later(tray.clock.now, 30 * HOUR), until: null },
    });
    await look();
    expect((await docketOf(one)).categoryIds).toEqual([]);
    passes(tray, 20 * 24 * 60 - 60);
    await look();
    expect((await docketOf(one)).categoryIds).toEqual([tin]);
  });

  it("settles what nobody answered, although it was a person who waits for it", async () => {
    await keep(
      "passing",
      all({ kind: "standing", of: ["waiting"] }, { kind: "standing-for", hours: 16 }, subject("crwth")),
      [{ kind: "settle" }],
    );
    const one = await desk.arrive({ subject: "A crwth" });
    const expectationId = trustedId<never>(tray.deps.newId());
    await desk.does(desk.lead, one, { kind: "expect", until: later(tray.clock.now, 60 * DAY), expectationId });
    const tried = done(
      await tryRule(
        tray.deps,
        desk.lead,
        draftOf("passing", subject("crwth"), [{ kind: "settle" }], { name: "Tried" }),
      ),
    );
    expect(tried.count).toBe(1);
    passes(tray, 6 * 24 * 60);
    await look();
    expect((await docketOf(one)).standing.kind).toBe("settled");
  });
});
