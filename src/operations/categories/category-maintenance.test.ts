import { inEnglish } from "@tests/support/english";
import {
  asLead,
  type Office,
  passes,
  setUpOffice,
  setUpParts,
  type TestTray,
  testTray,
} from "@tests/support/test-database";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { CategoryDraft } from "../../core/categories/category";
import { type CategoryId, trustedId } from "../../core/kernel/ids";
import {
  beginWithSet,
  changeCategory,
  createCategory,
  exportCategories,
  getCategoriesInCare,
  importCategories,
  letMembersChange,
  placeCategory,
  retireCategory,
  type TrayGrant,
  tryCategoryTable,
  undoCategories,
} from "../index.server";

let tray: TestTray;
let office: Office;
let lead: TrayGrant;
let other: TrayGrant;

beforeAll(async () => {
  tray = await testTray();
  office = await setUpOffice(tray.deps);
  lead = await asLead(tray, office.ines);
  other = (await setUpParts(tray.deps)).grant;
});
afterAll(() => tray.close());
beforeEach(() => passes(tray, 1));

const draft = (name: string, part: Partial<CategoryDraft> = {}): CategoryDraft => ({
  trayId: lead.tray.id,
  parentId: null,
  name,
  code: "",
  ink: "moss",
  key: null,
  description: "",
  listed: "open",
  ...part,
});
const make = async (name: string, part: Partial<CategoryDraft> = {}, grant = lead) => {
  const made = await createCategory(tray.deps, grant, draft(name, part));
  if (!made.ok) throw new Error(JSON.stringify(made.error));
  return made.value.value;
};
const errorOf = async (outcome: Promise<{ ok: true } | { ok: false; error: { kind: string } }>) => {
  const done = await outcome;
  return done.ok ? "done" : done.error.kind;
};
const seen = async (grant = lead) => (await getCategoriesInCare(tray.deps, grant)).categories;
const paths = async (grant = lead) => (await seen(grant)).map(({ path }) => path.join("/"));
const newestStep = async () => (await getCategoriesInCare(tray.deps, lead)).steps[0];

describe("who may change categories", () => {
  it("is who leads the tray, or every member where the tray lets them; never a reader", async () => {
    expect(await errorOf(createCategory(tray.deps, office.tobiasGrant, draft("Access")))).toBe("leads-only");
    expect(await errorOf(createCategory(tray.deps, office.reader, draft("Access")))).toBe("readers-only-read");
    expect(await errorOf(letMembersChange(tray.deps, office.tobiasGrant, true))).toBe("leads-only");
    expect(await errorOf(letMembersChange(tray.deps, lead, true))).toBe("done");
    await make("Access", {}, office.tobiasGrant);
    expect(await errorOf(createCategory(tray.deps, office.reader, draft("Insurance")))).toBe("readers-only-read");
    await letMembersChange(tray.deps, lead, false);
    expect(await errorOf(createCategory(tray.deps, office.tobiasGrant, draft("Insurance")))).toBe("leads-only");
  });

  it("of what is common to all trays is only who leads all of them, and of a tray nobody from another", async () => {
    expect(await errorOf(createCategory(tray.deps, lead, draft("For all", { trayId: null })))).toBe(
      "leads-of-all-only",
    );
    const own = await make("Ours alone");
    expect(await paths(other)).not.toContain("Ours alone");
    expect(await errorOf(changeCategory(tray.deps, other, own, { name: "Theirs" }))).toBe("no-such");
    expect(await errorOf(retireCategory(tray.deps, other, own))).toBe("no-such");
    expect(await errorOf(createCategory(tray.deps, other, draft("Into theirs")))).toBe("no-such");
    const step = await newestStep();
    expect(await errorOf(undoCategories(tray.deps, other, step?.id ?? trustedId("")))).toBe("no-such");
  });
});

describe("a category", () => {
  it("gets a code where it has none, and is told apart from every other", async () => {
    await make("Tuning rounds");
    expect((await seen()).find(({ name }) => name === "Tuning rounds")).toMatchObject({ code: "TR", key: null });
    const again = await createCategory(tray.deps, lead, draft("  tuning   ROUNDS ", { code: "tr" }));
    expect(inEnglish(again)).toEqual({
      ok: false,
      error: {
        kind: "problems",
        problems: { name: "“Tuning rounds” is there already.", code: "“Tuning rounds” has this code." },
      },
    });
  });

  it("is made once when two people make it at the same time", async () => {
    const both = await Promise.all([
      createCategory(tray.deps, lead, draft("Leather", { key: "l" })),
      createCategory(tray.deps, lead, draft("Leather", { key: "l" })),
    ]);
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    expect((await paths()).filter((path) => path === "Leather")).toHaveLength(1);
  });

  it("is renamed, moved and ordered by hand, each taken back by its step", async () => {
    const [timber, oak, ash] = [await make("Timber"), await make("Oak"), await make("Ash")];
    const level = async () => (await paths()).filter((path) => /^(Timber|Oak|Ash|Wood)/.test(path));
    const does = async (change: Promise<{ ok: boolean }>) => {
      expect((await change).ok).toBe(true);
      passes(tray, 1);
      return level();
    };
    const before = await level();
    expect(before).toEqual(["Timber", "Oak", "Ash"]);
    expect(await does(placeCategory(tray.deps, lead, ash, { parentId: null, before: oak }))).toEqual([
      "Timber",
      "Ash",
      "Oak",
    ]);
    expect(await does(placeCategory(tray.deps, lead, ash, { parentId: timber, before: null }))).toEqual([
      "Timber",
      "Timber/Ash",
      "Oak",
    ]);
    expect(await does(placeCategory(tray.deps, lead, oak, { parentId: timber, before: ash }))).toEqual([
      "Timber",
      "Timber/Oak",
      "Timber/Ash",
    ]);
    expect(await does(changeCategory(tray.deps, lead, timber, { name: "Wood" }))).toEqual([
      "Wood",
      "Wood/Oak",
      "Wood/Ash",
    ]);
    expect(await errorOf(placeCategory(tray.deps, lead, timber, { parentId: oak, before: null }))).toBe("problems");
    expect((await newestStep())?.words).toBe("renamed “Timber” to “Wood”");
    for (let steps = 0; steps < 4; steps += 1) {
      const { steps: lately } = await getCategoriesInCare(tray.deps, lead);
      const newest = lately.find(({ undoneAt }) => undoneAt === null);
      expect((await undoCategories(tray.deps, lead, newest?.id ?? trustedId(""))).ok).toBe(true);
      passes(tray, 1);
    }
    expect(await level()).toEqual(before);
  });

  it("that was made is gone when that is taken back, and only once", async () => {
    await make("By mistake");
    const step = await newestStep();
    const undone = await undoCategories(tray.deps, lead, step?.id ?? trustedId(""));
    expect(inEnglish(undone)).toEqual({ ok: true, value: "created “By mistake”" });
    expect(await paths()).not.toContain("By mistake");
    expect(await errorOf(undoCategories(tray.deps, lead, step?.id ?? trustedId("")))).toBe("nothing-to-undo");
    // Its name, code and key are free again.
    await make("By mistake");
  });

  it("does not come back to a name that another has taken since", async () => {
    const first = await make("Bellows");
    await changeCategory(tray.deps, lead, first, { name: "Wind", code: "WI" });
    const renaming = await newestStep();
    passes(tray, 1);
    await make("Bellows", { code: "XY" });
    expect(await errorOf(undoCategories(tray.deps, lead, renaming?.id ?? trustedId("")))).toBe("changed-since");
    expect((await paths()).filter((path) => path === "Bellows" || path === "Wind")).toEqual(["Wind", "Bellows"]);
  });
});

describe("a file of categories", () => {
  it("is tried first, line by line, then taken in as one step, and what was written reads back the same", async () => {
    const text =
      "Path;Ink;Key\r\nSuppliers;copper;s\r\nSuppliers › Tin;;\r\n;;\r\nNowhere › Here;;\r\nLeather;brick;\r\n";
    const tried = await tryCategoryTable(tray.deps, lead, text);
    expect(tried.ok && tried.value.map(({ line, path, kind }) => [line, path, kind])).toEqual([
      [2, "Suppliers", "new"],
      [3, "Suppliers › Tin", "new"],
      [4, "", "problem"],
      [5, "Nowhere › Here", "problem"],
      [6, "Leather", "changed"],
    ]);
    expect(await paths()).not.toContain("Suppliers");
    const taken = await importCategories(tray.deps, lead, text);
    expect(taken.ok && taken.value.value.filter(({ kind }) => kind !== "problem")).toHaveLength(3);
    expect(await paths()).toContain("Suppliers/Tin");
    const written = await exportCategories(tray.deps, lead);
    expect(written.slice(1).split("\r\n")[0]).toBe("path,code,ink,key,listed,retired,description");
    const again = await tryCategoryTable(tray.deps, lead, written);
    expect(again.ok && [...new Set(again.value.map(({ kind }) => kind))]).toEqual(["same"]);
    passes(tray, 1);
    const step = await newestStep();
    expect(step?.words).toBe("took categories in from a file");
    expect((await undoCategories(tray.deps, lead, step?.id ?? trustedId(""))).ok).toBe(true);
    expect(await paths()).not.toContain("Suppliers/Tin");
    expect((await seen()).find(({ name }) => name === "Leather")).toMatchObject({ ink: "moss" });
  });

  it.each([
    ["", /name the columns/],
    ["name,ink\r\nTin,moss", /one of them “path”/],
    ['path\r\n"Tin', /no table in CSV/],
  ])("that is none says so: %j", async (text, words) => {
    const tried = await tryCategoryTable(tray.deps, lead, text);
    expect(inEnglish(tried.ok ? "" : tried.error)).toMatch(words);
  });
});

it("a tray begins with a set, whatever it has already stays", async () => {
  const set = await beginWithSet(tray.deps, other, "activities");
  expect(set.ok && set.value.value.every(({ kind }) => kind === "new")).toBe(true);
  expect(await paths(other)).toContain("Invoices/Payment reminders");
  const again = await beginWithSet(tray.deps, other, "activities");
  expect(again.ok && again.value.stepId).toBeNull();
  const id = (await seen(other))[0]?.id ?? trustedId<CategoryId>("");
  expect((await seen()).some((one) => one.id === id)).toBe(false);
});
