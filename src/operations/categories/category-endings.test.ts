import { inEnglish } from "@tests/support/english";
import { aMessage } from "@tests/support/mail";
import { manyOfIt } from "@tests/support/many";
import { addressed } from "@tests/support/ruled-messages";
import {
  address,
  asLead,
  type Office,
  passes,
  setUpOffice,
  type TestTray,
  testTray,
} from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import { type CategoryId, type ConversationId, trustedId } from "../../core/kernel/ids";
import {
  bringBackCategory,
  countsForFilter,
  decide,
  editContact,
  editRule,
  editView,
  endCategory,
  everythingInList,
  examine,
  getCategoriesInCare,
  getContacts,
  getRules,
  joinConversations,
  openConversation,
  pinPlace,
  receiveMessage,
  redoNewest,
  retireCategory,
  runBulk,
  runsUnderWay,
  setUpCategories,
  shelfOf,
  startBulkRun,
  type TrayGrant,
  undoBatch,
  undoCategories,
  undoNewest,
  usesBeforeEnding,
} from "../index.server";

const MANY = 5_000;

let tray: TestTray;
let office: Office;
let lead: TrayGrant;
let ids: ConversationId[];
let tuning: CategoryId;
let rounds: CategoryId;
let spring: CategoryId;
let quotes: CategoryId;

const value = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const give = async (conversations: readonly ConversationId[], categoryId: CategoryId, gives = true) =>
  value(
    await decide(
      tray.deps,
      lead,
      { ids: conversations, seenVersion: null },
      { kind: "categorise", categoryId, give: gives },
    ),
  );
const giveAll = async (some: readonly ConversationId[], categoryId: CategoryId) => {
  const run = value(
    await startBulkRun(tray.deps, lead, some, { kind: "categorise", categoryId, give: true }, "Gave it"),
  );
  await runBulk(tray.deps, run);
  const ended = (await runsUnderWay(tray.deps, lead)).find(({ id }) => id === run);
  if (ended?.state !== "done") throw new Error("the run is not done");
};

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  lead = await asLead(tray, office.ines);
  const made = await setUpCategories(tray.deps, [
    { code: "TU", name: "Tuning", ink: "moss", parentCode: null },
    { code: "TR", name: "Rounds", ink: "olive", parentCode: "TU" },
    { code: "SP", name: "Spring", ink: "olive", parentCode: "TR" },
    { code: "QU", name: "Quotes", ink: "copper", parentCode: null },
  ]);
  [tuning, rounds, spring, quotes] = made.map(({ id }) => id) as [CategoryId, CategoryId, CategoryId, CategoryId];
  const raw = aMessage({ id: "one@vanehouse.example", subject: "One of many" });
  const recipients = [address("office@ottermoor.example")];
  await receiveMessage(tray.deps, { raw, envelopeSender: "a@x.example", recipients });
  await manyOfIt(tray, MANY + 10);
  const view = { order: "date", reversed: false, grouping: null } as const;
  ids = await everythingInList(tray.deps, lead, office.ines, { scope: "to-sort", filter: {}, view }, null, MANY + 10);
  await giveAll(ids.slice(0, MANY), rounds);
  // Some have the other one too, before and after.
  await give(ids.slice(0, 40), quotes);
  await give(ids.slice(20, 60), tuning);
  value(
    await editView(tray.deps, lead, {
      name: "Rounds to sort",
      scope: "to-sort",
      query: `category=${rounds}&unread=yes`,
    }),
  );
  value(await pinPlace(tray.deps, lead, { kind: "category", target: rounds, isForAll: true }));
  for (const [name, categoryIds] of [
    ["Both", [rounds, quotes]],
    ["Only rounds", [rounds]],
  ] as const) {
    const condition = addressed("from", "@x.example");
    const actions = categoryIds.map((categoryId) => ({ kind: "categorise", categoryId, give: true }) as const);
    value(
      await editRule(tray.deps, lead, {
        id: null,
        name,
        isOn: true,
        isLast: false,
        condition,
        exception: null,
        actions,
      }),
    );
  }
  const contact = { name: "Hugo Lund", organisation: "", phone: "", note: "", addresses: "h@x.example" };
  value(await editContact(tray.deps, lead, null, { ...contact, categoryIds: [tuning, rounds] }));
}, 60_000);
afterAll(() => tray.close());
beforeEach(() => passes(tray, 1));

/** What is kept of everything that a category is used in. */
const state = async () => {
  const rows = await tray.ask(`
    select md5(string_agg(md5(to_jsonb(conversation)::text), '' order by id)) as conversations,
      (select jsonb_agg(to_jsonb(category) order by id) from category) as categories,
      (select jsonb_agg(to_jsonb(place) order by id) from place) as places,
      (select jsonb_agg(to_jsonb(rule) order by id) from rule) as rules,
      (select jsonb_agg(to_jsonb(contact) order by id) from contact) as contacts,
      (select jsonb_agg(to_jsonb(saved_view) order by id) from saved_view) as views from conversation`);
  return rows[0];
};
const gives = async () =>
  (await getRules(tray.deps, lead)).map(({ name, actions, isOn }) => [
    name,
    actions.flatMap((action) => (action.kind === "categorise" ? [action.categoryId] : [])),
    isOn,
  ]);
const contactHas = async () => (await getContacts(tray.deps, lead, { text: "", categoryId: null }))[0]?.categoryIds;
const having = async (categoryId: CategoryId) =>
  Number(
    (await tray.ask(`select count(*) from conversation where category_ids @> array['${categoryId}'::uuid]`))[0].count,
  );
/** What the doctor finds wrong: dockets, categories that no list knows, counts that proposals rest on. */
const lost = async () => {
  const { differences, lostCategories, countsAstray } = await examine(tray.deps);
  return [...differences, ...(lostCategories > 0 ? ["lost"] : []), ...(countsAstray > 0 ? ["astray"] : [])];
};
const end = async (id: CategoryId, by: CategoryId | null) => {
  const announced = await usesBeforeEnding(tray.deps, id);
  return { announced, ended: await endCategory(tray.deps, lead, id, { by, announced }) };
};
const undo = async (stepId: Parameters<typeof undoCategories>[2] | null) => {
  passes(tray, 1);
  return undoCategories(tray.deps, lead, stepId ?? trustedId(""));
};
const ofOne = async (id: ConversationId | undefined) =>
  (await openConversation(tray.deps, lead, id ?? trustedId("")))?.docket.categoryIds;

describe(`a category of ${MANY} conversations`, () => {
  it("is merged: what was announced is what happens, and undoing it restores everything exactly", async () => {
    const before = await state();
    const { announced, ended } = await end(rounds, quotes);
    expect(announced).toEqual({
      conversations: MANY,
      open: MANY,
      followUps: 0,
      views: 1,
      places: 1,
      rules: 2,
      contacts: 1,
    });
    const { value: counts, stepId } = value(ended);
    expect(counts).toEqual({ conversations: MANY });
    expect(await having(rounds)).toBe(0);
    expect(await having(quotes)).toBe(MANY);
    expect(await lost()).toEqual([]);
    expect(await gives()).toEqual([
      ["Both", [quotes], true],
      ["Only rounds", [quotes], true],
    ]);
    expect(await contactHas()).toEqual([tuning, quotes]);
    // Given before or after, it stands once.
    expect(await ofOne(ids[30])).toEqual([quotes, tuning]);
    const { places, views } = await shelfOf(tray.deps, lead);
    expect(views.map(({ query }) => query)).toEqual([`unread=yes&category=${quotes}`]);
    expect(places.find(({ kind }) => kind === "category")).toMatchObject({ title: "Quotes", count: MANY });
    // What stood under it stands under its successor.
    const care = await getCategoriesInCare(tray.deps, lead);
    expect(care.categories.map(({ path }) => path.join("/"))).toEqual(["Tuning", "Quotes", "Quotes/Spring"]);
    expect(value(await undo(stepId))).toBe("merged “Rounds” into “Quotes”");
    expect(await state()).toEqual(before);
    expect(await lost()).toEqual([]);
  });

  it("is deleted and taken off, and comes back exactly", async () => {
    const before = await state();
    const { ended } = await end(rounds, null);
    expect(value(ended).value).toEqual({ conversations: MANY });
    expect(await having(rounds)).toBe(0);
    expect(await ofOne(ids[30])).toEqual([quotes, tuning]);
    expect(await ofOne(ids[100])).toEqual([]);
    // What does nothing any more is off.
    expect(await gives()).toEqual([
      ["Both", [quotes], true],
      ["Only rounds", [], false],
    ]);
    expect(await contactHas()).toEqual([tuning]);
    expect((await shelfOf(tray.deps, lead)).views.map(({ query }) => query)).toEqual(["unread=yes"]);
    expect((await getCategoriesInCare(tray.deps, lead)).categories.map(({ path }) => path.join("/"))).toEqual([
      "Tuning",
      "Tuning/Spring",
      "Quotes",
    ]);
    expect(await lost()).toEqual([]);
    value(await undo(value(ended).stepId));
    expect(await state()).toEqual(before);
  });

  it("is retired: kept where it is, given nowhere, and brought back", async () => {
    const before = await state();
    const retired = value(await retireCategory(tray.deps, lead, rounds));
    expect(await having(rounds)).toBe(MANY);
    const offered = (await getCategoriesInCare(tray.deps, lead)).categories.filter((one) => !one.retired);
    // What stands under it is not offered either.
    expect(offered.map(({ name }) => name)).toEqual(["Tuning", "Quotes"]);
    const refused = await decide(
      tray.deps,
      lead,
      { ids: [ids[MANY] ?? trustedId("")], seenVersion: null },
      { kind: "categorise", categoryId: rounds, give: true },
    );
    expect(inEnglish(refused)).toMatchObject({ ok: false, error: { kind: "category-retired", name: "Rounds" } });
    value(await bringBackCategory(tray.deps, lead, spring));
    expect((await getCategoriesInCare(tray.deps, lead)).categories.every((one) => !one.retired)).toBe(true);
    // Brought back since, retiring it cannot be taken back.
    expect(await undo(retired.stepId)).toMatchObject({ ok: false, error: { kind: "changed-since" } });
    expect(await state()).toEqual(before);
  });

  it("is not ended when more uses it than was announced", async () => {
    const announced = await usesBeforeEnding(tray.deps, rounds);
    await give(ids.slice(MANY, MANY + 1), rounds);
    const before = await state();
    expect(await endCategory(tray.deps, lead, rounds, { by: quotes, announced })).toMatchObject({
      ok: false,
      error: { kind: "uses-changed", uses: { conversations: MANY + 1 } },
    });
    expect(await state()).toEqual(before);
    await give(ids.slice(MANY, MANY + 1), rounds, false);
  });

  it("counts under those above it, once, and is found there", async () => {
    const view = { order: "date", reversed: false, grouping: null } as const;
    const request = (filter = {}) => ({ scope: "to-sort" as const, filter, view });
    const counts = await countsForFilter(tray.deps, lead, office.ines, request(), "category");
    expect(inEnglish(counts.map(({ name, count }) => [name, count]))).toEqual([
      ["Tuning", MANY],
      ["Tuning › Rounds", MANY],
      ["Quotes", 40],
      ["No category", 10],
    ]);
    const under = await everythingInList(
      tray.deps,
      lead,
      office.ines,
      request({ category: [tuning] }),
      null,
      MANY + 10,
    );
    expect(new Set(under).size).toBe(MANY);
  });
});

describe("what was decided before a category ended", () => {
  it("can still be undone and done again, and counts for the successor", async () => {
    const [one] = ids.slice(MANY + 1);
    const given = await give([one ?? trustedId("")], rounds);
    passes(tray, 1);
    const { stepId } = value((await end(rounds, quotes)).ended);
    expect(await ofOne(one)).toEqual([quotes]);
    passes(tray, 1);
    value(await undoBatch(tray.deps, lead, given.batchId));
    expect(await ofOne(one)).toEqual([]);
    passes(tray, 1);
    expect(inEnglish(value(await redoNewest(tray.deps, lead)).what)).toBe("added Rounds");
    expect(await ofOne(one)).toEqual([quotes]);
    expect(await lost()).toEqual([]);
    value(await undo(stepId));
    expect(await ofOne(one)).toEqual([rounds]);
    expect(await lost()).toEqual([]);
    passes(tray, 1);
    value(await undoNewest(tray.deps, lead));
    expect(await ofOne(one)).toEqual([]);
  });

  it("goes with its messages into another conversation and back, and never shows what is no more", async () => {
    const [target, source] = ids.slice(MANY + 2) as [ConversationId, ConversationId];
    await give([source], rounds);
    const joined = value(await joinConversations(tray.deps, lead, target, source));
    const { stepId } = value((await end(rounds, quotes)).ended);
    expect(await ofOne(target)).toEqual([quotes]);
    passes(tray, 1);
    value(await undoBatch(tray.deps, lead, joined.batchId));
    expect([await ofOne(target), await ofOne(source)]).toEqual([[], [quotes]]);
    expect(await lost()).toEqual([]);
    value(await undo(stepId));
    expect(await ofOne(source)).toEqual([rounds]);
    await give([source], rounds, false);
  });

  it("is never lost when both happen at the same time", async () => {
    const some = ids.slice(MANY + 4, MANY + 10);
    const announced = await usesBeforeEnding(tray.deps, spring);
    const gives = some.map((id) =>
      decide(tray.deps, lead, { ids: [id], seenVersion: null }, { kind: "categorise", categoryId: spring, give: true }),
    );
    const [ended, ...given] = await Promise.all([
      endCategory(tray.deps, lead, spring, { by: tuning, announced }),
      ...gives,
    ]);
    // Whoever came first: what was given before is counted and stops the merging, what comes after is refused.
    expect(ended.ok).toBe(given.every((one) => !one.ok));
    expect(await lost()).toEqual([]);
  });
});

it("a category ends in one that is there, not retired, and known wherever it is", async () => {
  const announced = await usesBeforeEnding(tray.deps, tuning);
  const refused = async (by: CategoryId) => {
    const outcome = await endCategory(tray.deps, lead, tuning, { by, announced });
    return outcome.ok ? "done" : outcome.error.kind;
  };
  expect(await refused(tuning)).toBe("no-such");
  expect(await refused(trustedId("01900000-0000-7000-8000-000000000000"))).toBe("no-such");
  value(await retireCategory(tray.deps, lead, quotes));
  expect(await refused(quotes)).toBe("category-retired");
  expect((await endCategory(tray.deps, office.tobiasGrant, tuning, { by: null, announced })).ok).toBe(false);
});
