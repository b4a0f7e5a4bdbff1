import { type Desk, done, setUpDesk } from "@tests/support/desk";
import { addressed } from "@tests/support/ruled-messages";
import { passes, type TestTray, testTray } from "@tests/support/test-database";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type CategoryId, trustedId } from "../../core/kernel/ids";
import {
  disable,
  editRule,
  enable,
  explainMessage,
  getStopped,
  getStoppedRules,
  looseEndCount,
  openConversation,
  setUpCategories,
} from "../index.server";

let tray: TestTray;
let desk: Desk;
let tin: CategoryId;

beforeAll(async () => {
  tray = await testTray();
  desk = await setUpDesk(tray);
  tin =
    (await setUpCategories(tray.deps, [{ code: "TI", name: "Tin", ink: "moss", parentCode: null }]))[0]?.id ??
    trustedId("");
});
afterAll(() => tray.close());

it("does nothing while it names somebody who left, says so, and goes on when she is back", async () => {
  const rule = done(
    await editRule(tray.deps, desk.lead, {
      id: null,
      name: "Tin",
      isOn: true,
      isLast: true,
      condition: addressed("from", "@dombach.example"),
      exception: null,
      actions: [
        { kind: "categorise", categoryId: tin, give: true },
        { kind: "assign", ownerId: desk.mara.id },
      ],
    }),
  );
  const categoriesOfNew = async () => {
    // What arrives is asked by rules that are at most two seconds old.
    passes(tray, 1);
    const id = await desk.arrive({ from: "billing@dombach.example", subject: "Tin" });
    const opened = await openConversation(tray.deps, desk.lead, id);
    const message = opened?.messages[0]?.id ?? trustedId("");
    const explained = await explainMessage(tray.deps, desk.lead, message);
    return [opened?.docket.categoryIds, explained?.rules.map(({ verdict }) => verdict)];
  };
  expect(await categoriesOfNew()).toEqual([[tin], ["forIt"]]);
  expect((await getStoppedRules(tray.deps, desk.lead)).size).toBe(0);

  done(await disable(tray.deps, desk.mara.signInName));
  expect(await categoriesOfNew()).toEqual([[], ["stopped"]]);
  expect((await getStoppedRules(tray.deps, desk.lead)).get(rule)).toEqual(["members"]);
  // Whoever leads has it among the loose ends; nobody else could change it.
  const stopped = { trayId: desk.lead.tray.id, what: "rule", id: rule, name: "Tin", memberId: null, gone: ["members"] };
  expect(await getStopped(tray.deps, desk.lead)).toEqual([stopped]);
  expect(await getStopped(tray.deps, { ...desk.lead, role: "member" })).toEqual([]);
  const [ofLead, ofMember] = [desk.lead, { ...desk.lead, role: "member" as const }];
  const difference = (await looseEndCount(tray.deps, ofLead)) - (await looseEndCount(tray.deps, ofMember));
  expect(difference).toBe(1);

  done(await enable(tray.deps, desk.mara.signInName));
  expect(await categoriesOfNew()).toEqual([[tin], ["forIt"]]);
  expect(await getStopped(tray.deps, desk.lead)).toEqual([]);
});
