import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { all, worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "vitest";
import { type ConversationId, type MessageId, type RuleId, trustedId } from "../../core/kernel/ids";
import type { FilingField } from "../../core/records/filing-field";
import type { Condition } from "../../core/rules/condition";
import type { RuleAction, RuleMoment } from "../../core/rules/rule";
import {
  answerConversation,
  applyPassingRules,
  applySendingRules,
  createRecord,
  detailsAskedBy,
  dropRule,
  editRule,
  editType,
  getJournal,
  getTypes,
  openConversation,
  type RuleDraft,
  remindersToGo,
  sendMessage,
  sendReminders,
  setPuttingAway,
  undoBatch,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
const kept: RuleId[] = [];

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
});
afterAll(() => tray.close());
afterEach(async () => {
  for (const id of kept.splice(0)) done(await dropRule(tray.deps, desk.lead, id, true));
});

const draftOf = (moment: RuleMoment, condition: Condition, actions: readonly RuleAction[]): RuleDraft => ({
  ...{ id: null, name: `At ${moment} ${kept.length}`, isOn: true, isLast: false, exception: null },
  ...{ condition, actions, times: { moment, from: null, until: null } },
});
async function keep(...given: Parameters<typeof draftOf>) {
  const id = done(await editRule(tray.deps, desk.lead, draftOf(...given)));
  kept.push(id);
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
}
const problemsOf = async (draft: RuleDraft) => {
  const edited = await editRule(tray.deps, desk.lead, draft);
  if (edited.ok || edited.error.kind !== "problems") throw new Error("nothing is wrong with it");
  return inEnglish(edited.error.problems);
};
const opened = async (id: ConversationId) => {
  const open = await openConversation(tray.deps, desk.lead, id, "ahead");
  if (open === null) throw new Error("there is no such conversation");
  return open;
};
const subject = (word: string) => worded("subject", "words", word);
const answer = async (id: ConversationId) =>
  done(
    await answerConversation(tray.deps, desk.lead, desk.ines, id, {
      ...{
        to: [{ name: "", address: "mill@dombach.example" as never }],
        cc: [],
        subject: "Re: our offer",
        after: { kind: "keep" },
      },
      html: "<p>Our offer for the zither.</p>",
    }),
  );
const goes = async (message: MessageId) => {
  await sendMessage(tray.deps, message, { number: 1, last: true });
  for (const job of tray.jobs.splice(0))
    if (job.kind === "rules-of-sent") await applySendingRules(tray.deps, job.trayId, job.messageId);
};
const toGo = async (id: ConversationId) => (await remindersToGo(tray.deps, desk.lead, [id])).length;

describe("a rule that files with details", () => {
  const field = (key: string, given: Partial<FilingField>): FilingField => ({
    ...{ key, label: key, kind: "text", required: false, choices: [], start: "", remembers: false },
    ...given,
  });

  it("is kept with all that the record asks for, and files with it", async () => {
    const [client] = await getTypes(tray.deps);
    if (client === undefined) throw new Error("there are types from the start");
    const fields = [
      field("kind", { kind: "choice", choices: ["offer", "invoice"], required: true }),
      field("hours", {}),
    ];
    done(await editType(tray.deps, desk.lead, { ...client, fields }));
    const made = { typeId: client.id, title: "Vane House", parentId: null, responsibleId: null, note: "" };
    const record = done(await createRecord(tray.deps, desk.lead, { ...made, addresses: "", access: null }));
    const asked = await detailsAskedBy(tray.deps, desk.lead, record.code);
    expect(asked?.fields.map(({ key, value }) => [key, value])).toEqual([
      ["kind", ""],
      ["hours", ""],
    ]);
    expect(await detailsAskedBy(tray.deps, desk.lead, "X-1")).toBeNull();

    const file = { kind: "file", recordId: record.id } as const;
    const problem = { actions: [{ at: 0, problem: `${record.code} asks for details first.` }] };
    expect(await problemsOf(draftOf("arrival", subject("bellows"), [file]))).toEqual(problem);
    const wrong = { ...file, fields: { kind: "planet" } };
    expect(await problemsOf(draftOf("arrival", subject("bellows"), [wrong]))).toEqual(problem);
    await keep("arrival", subject("bellows"), [{ ...file, fields: { kind: "invoice", hours: " 3 " } }]);
    const { journal } = await opened(await desk.arrive({ subject: "Bellows" }));
    expect(journal.map(({ effect }) => effect)).toEqual([
      { kind: "filed", recordId: record.id, fields: { kind: "invoice", hours: "3" } },
    ]);
  });
});

describe("a rule that reminds", () => {
  const remind: RuleAction = { kind: "remind", tone: "firm", language: "de" };

  it("reminds of what it awaits itself, not just after we wrote, in the owner's name, until that is taken back", async () => {
    const assign: RuleAction = { kind: "assign", ownerId: desk.ines.id };
    const rule = await keep("sending", subject("offer"), [assign, { kind: "expect", workingDays: 3 }, remind]);
    const one = await desk.arrive({ subject: "A zither" });
    await goes(await answer(one));
    const times = (await remindersToGo(tray.deps, desk.lead, [one])).map(({ sendAt }) => sendAt);
    expect(times).toHaveLength(3);
    expect(times.every((at) => at > tray.clock.now)).toBe(true);
    const { steps } = await getJournal(tray.deps, desk.lead, { by: "tray", kind: "waiting", before: null, rule });
    expect(inEnglish(steps.map(({ words }) => words))).toEqual([
      expect.stringContaining("began to remind them in the name of you"),
    ]);
    done(await undoBatch(tray.deps, desk.lead, steps[0]?.batchId ?? trustedId("")));
    expect(await toGo(one)).toBe(0);
  });

  it("reminds at once of what nobody answered for days, once, in its own words", async () => {
    await keep(
      "passing",
      all({ kind: "standing", of: ["waiting"] }, { kind: "standing-for", hours: 16 }, subject("crwth")),
      [remind],
    );
    const one = await desk.arrive({ subject: "A crwth", from: "Otto Mill <mill@dombach.example>" });
    await desk.does(desk.lead, one, { kind: "assign", ownerId: desk.ines.id });
    await goes(await answer(one));
    const expectationId = trustedId<never>(tray.deps.newId());
    await desk.does(desk.lead, one, { kind: "expect", until: null, expectationId });
    await applyPassingRules(tray.deps);
    expect(await toGo(one)).toBe(0);
    passes(tray, 7 * 24 * 60);
    await applyPassingRules(tray.deps);
    await applyPassingRules(tray.deps);
    expect(await toGo(one)).toBe(4);
    expect(await sendReminders(tray.deps)).toBe(1);
    for (const job of tray.jobs.splice(0))
      if (job.kind === "send-message") await sendMessage(tray.deps, job.messageId, { number: 1, last: true });
    const last = Buffer.from(tray.handedOver.at(-1)?.raw ?? []).toString();
    expect(last).toMatch(/Guten Tag/);
    expect(await toGo(one)).toBe(3);
  });

  it("is for what waits or was sent, and does nothing where nothing is awaited", async () => {
    expect(await problemsOf(draftOf("arrival", subject("crwth"), [remind]))).toEqual({
      actions: [{ at: 0, problem: "Only for what we sent, or while time passes." }],
    });
    await keep("passing", subject("shawm"), [remind]);
    const one = await desk.arrive({ subject: "A shawm" });
    await desk.does(desk.lead, one, { kind: "assign", ownerId: desk.ines.id });
    await applyPassingRules(tray.deps);
    expect([await toGo(one), (await opened(one)).journal.map(({ effect }) => effect.kind)]).toEqual([0, ["assigned"]]);
  });
});

describe("a rule that asks for delivery reports", () => {
  it("has the mail systems on the way asked, says so once, and does what else it does", async () => {
    await keep("sending", subject("offer"), [{ kind: "ask-report" }, { kind: "urgency", urgency: "today" }]);
    const one = await desk.arrive({ subject: "A psaltery" });
    const message = await answer(one);
    await goes(message);
    expect(tray.handedOver.at(-1)?.reportId).toBe(message);
    const { journal, docket } = await opened(one);
    expect([journal.map(({ effect }) => effect.kind), docket.urgency]).toEqual([
      expect.arrayContaining(["report-asked", "urgency-set"]),
      "today",
    ]);
    expect(await problemsOf(draftOf("passing", subject("offer"), [{ kind: "ask-report" }]))).toEqual({
      actions: [{ at: 0, problem: "Only for what we send." }],
    });
  });

  it("leaves what it is not for as it was sent", async () => {
    await keep("sending", subject("invoice"), [{ kind: "ask-report" }]);
    await goes(await answer(await desk.arrive({ subject: "A regal" })));
    expect(tray.handedOver.at(-1)?.reportId).toBeNull();
  });
});

describe("a tray that settles only what is filed", () => {
  it("is not settled by a rule either, while the rest of the rule is done", async () => {
    const putAway = { binDays: 30, junkDays: 30, filesFirst: true };
    done(await setPuttingAway(tray.deps, desk.lead, putAway));
    await keep("arrival", subject("dulcian"), [{ kind: "urgency", urgency: "reading" }, { kind: "settle" }]);
    await keep("passing", subject("serpent"), [{ kind: "settle" }]);
    const [arrived, passed] = [
      await desk.arrive({ subject: "A dulcian" }),
      await desk.arrive({ subject: "A serpent" }),
    ];
    await applyPassingRules(tray.deps);
    const dockets = [(await opened(arrived)).docket, (await opened(passed)).docket];
    expect(dockets.map(({ standing, urgency }) => [standing.kind, urgency])).toEqual([
      ["to-sort", "reading"],
      ["to-sort", "no-rush"],
    ]);
    done(await setPuttingAway(tray.deps, desk.lead, { ...putAway, filesFirst: false }));
    await applyPassingRules(tray.deps);
    expect((await opened(passed)).docket.standing.kind).toBe("settled");
  });
});
