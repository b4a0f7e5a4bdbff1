import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { inEnglish } from "@tests/support/english";
import { worded } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type CategoryId, type ConversationId, type RuleId, trustedId } from "../../core/kernel/ids";
import type { RuleAction } from "../../core/rules/rule";
import {
  editRule,
  endCategory,
  getRuleHistory,
  openConversation,
  type RuleDraft,
  setUpCategories,
  undoCategories,
  undoRuleVersion,
  usesBeforeEnding,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let tin: CategoryId;
let lead: CategoryId;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  const made = await setUpCategories(tray.deps, [
    { code: "TI", name: "Tin", ink: "moss", parentCode: null },
    { code: "LE", name: "Lead", ink: "olive", parentCode: null },
  ]);
  [tin, lead] = made.map(({ id }) => id) as [CategoryId, CategoryId];
});
afterAll(() => tray.close());

const give = (categoryId: CategoryId): RuleAction => ({ kind: "categorise", categoryId, give: true });

async function keep(given: Partial<RuleDraft>): Promise<RuleId> {
  const draft = {
    ...{ id: null, name: "Bars", isOn: true, isLast: false, exception: null },
    ...{ condition: worded("subject", "words", "bar"), actions: [give(tin)] },
  };
  const id = done(await editRule(tray.deps, desk.lead, { ...draft, ...given }));
  // What arrives is asked by rules that are at most two seconds old.
  passes(tray, 1);
  return id;
}

const arrive = (subject = "A bar") => desk.arrive({ from: "mill@dombach.example", subject });
const categoriesOf = async (id: ConversationId) =>
  (await openConversation(tray.deps, desk.lead, id))?.docket.categoryIds ?? [];
const historyOf = async (id: RuleId) => {
  const history = await getRuleHistory(tray.deps, desk.lead, id, null);
  if (history === null) throw new Error("there is no such rule");
  return history;
};

it("is counted by version and month, with what people took back, and each version says who changed what", async () => {
  const id = await keep({});
  const [first, second] = [await arrive(), await arrive()];
  await keep({ id, actions: [give(lead)] });
  await keep({ id, actions: [give(lead)] });
  const third = await arrive();
  await arrive("No such word");
  const history = await historyOf(id);
  expect(
    history.versions.map(({ version, did, undone, by, changes }) => [version, did, undone, by, inEnglish(changes)]),
  ).toEqual([
    [2, 1, 0, desk.lead.memberId, ["changed what it does"]],
    [1, 2, 0, desk.lead.memberId, ["made it"]],
  ]);
  expect(history.steps.steps.map(({ conversationId }) => conversationId)).toEqual([third, second, first]);
  expect([history.lately, history.before]).toEqual([
    { did: 3, undone: 0 },
    { did: 0, undone: 0 },
  ]);
  expect(history.months.map(({ did, undone }) => [did, undone])).toEqual([[3, 0]]);

  done(await undoRuleVersion(tray.deps, desk.lead, { id, version: 1, since: null }));
  expect([await categoriesOf(first), await categoriesOf(second), await categoriesOf(third)]).toEqual([[], [], [lead]]);
  const after = await historyOf(id);
  expect(after.versions.map(({ did, undone }) => [did, undone])).toEqual([
    [1, 0],
    [2, 2],
  ]);
  expect(after.lately).toEqual({ did: 3, undone: 2 });
});

it("is undone only since a moment, only by those who lead, and leaves what somebody decided anew", async () => {
  const id = await keep({ name: "Rods", condition: worded("subject", "words", "rod") });
  const early = await arrive("A rod");
  passes(tray, 60);
  const since = tray.deps.now();
  const [late, decided] = [await arrive("Another rod"), await arrive("A third rod")];
  await desk.does(desk.lead, decided, { kind: "categorise", categoryId: tin, give: false });
  await desk.does(desk.lead, decided, { kind: "categorise", categoryId: tin, give: true });
  const asked = { id, version: 1, since };
  expect(await undoRuleVersion(tray.deps, { ...desk.lead, role: "member" }, asked)).toMatchObject({
    error: { kind: "leads-only" },
  });
  done(await undoRuleVersion(tray.deps, desk.lead, asked));
  expect([await categoriesOf(early), await categoriesOf(late), await categoriesOf(decided)]).toEqual([
    [tin],
    [],
    [tin],
  ]);
  expect(await undoRuleVersion(tray.deps, desk.lead, { ...asked, version: 7 })).toMatchObject({
    error: { kind: "nothing-to-undo" },
  });
});

it("has a version for what became of a category that it gives, and another when that is taken back", async () => {
  const id = await keep({ name: "Sheets", condition: worded("subject", "words", "sheet") });
  const announced = await usesBeforeEnding(tray.deps, tin);
  const ended = done(await endCategory(tray.deps, desk.lead, tin, { by: lead, announced }));
  const merged = await historyOf(id);
  expect(merged.versions.map(({ actions }) => actions)).toEqual([[give(lead)], [give(tin)]]);
  done(await undoCategories(tray.deps, desk.lead, ended.stepId ?? trustedId("")));
  const back = await historyOf(id);
  expect(back.versions.map(({ version, actions }) => [version, actions])).toEqual([
    [3, [give(tin)]],
    [2, [give(lead)]],
    [1, [give(tin)]],
  ]);
  expect(
    await getRuleHistory(tray.deps, desk.lead, trustedId<RuleId>("00000000-0000-4000-8000-000000000000"), null),
  ).toBe(null);
});
