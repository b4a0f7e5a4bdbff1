import { hour, INES } from "@tests/support/a-conversation";
import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { givenCategories } from "../docket/given-categories";
import type { Effect, JournalEntry } from "../journal/entry";
import { type CategoryId, type EntryId, type TrayId, trustedId } from "../kernel/ids";
import type { Category, CategoryReplacement } from "./category";
import { linesOfCategories, planCategoryTable } from "./category-table";
import { inTreeOrder, pathInWords, withAllUnder } from "./category-tree";
import { checkCategory } from "./check-category";
import { proposeCode } from "./propose-code";
import { STARTING_SETS } from "./starting-sets";

const id = (text: string) => trustedId<CategoryId>(text);
const OFFICE = trustedId<TrayId>("office");
const PARTS = trustedId<TrayId>("parts");

const aCategory = (name: string, part: Partial<Category> = {}): Category => ({
  id: id(name.toLowerCase()),
  trayId: null,
  parentId: null,
  name,
  code: name.slice(0, 2).toUpperCase(),
  ink: "moss",
  key: null,
  description: "",
  listed: "open",
  retired: false,
  ...part,
});

const INVOICES = aCategory("Invoices", { key: "i" });
const REMINDERS = aCategory("Reminders", { parentId: INVOICES.id });
const LAST = aCategory("Last ones", { parentId: REMINDERS.id });
const TUNING = aCategory("Tuning");
const TREE = [TUNING, LAST, INVOICES, REMINDERS];

function idMaker(): () => string {
  let made = 0;
  return () => {
    made += 1;
    return `new-${made}`;
  };
}

describe("the tree of categories", () => {
  it("is read from top to bottom, in the order by hand on each level", () => {
    expect(inTreeOrder(TREE).map(({ depth, path }) => [depth, pathInWords(path)])).toEqual([
      [0, "Tuning"],
      [0, "Invoices"],
      [1, "Invoices › Reminders"],
      [2, "Invoices › Reminders › Last ones"],
    ]);
  });

  it("has at its top what stands under something that is not there", () => {
    expect(inTreeOrder([REMINDERS, LAST]).map(({ name, depth }) => [name, depth])).toEqual([
      ["Reminders", 0],
      ["Last ones", 1],
    ]);
  });

  it("has everything of whatever depth under a category", () => {
    expect(withAllUnder(TREE, INVOICES.id)).toEqual(new Set([INVOICES.id, REMINDERS.id, LAST.id]));
    expect(withAllUnder(TREE, LAST.id)).toEqual(new Set([LAST.id]));
  });
});

describe("a category that somebody fills in", () => {
  const { id: _, retired, ...DRAFT } = aCategory("Quotes");
  const problems = (part: Partial<Category>, of: CategoryId | null = null) =>
    checkCategory({ ...DRAFT, ...part }, of, [...TREE, aCategory("Old", { retired: true, key: "o" })]);

  it("may be so when nothing is wrong", () => {
    expect(problems({})).toEqual({});
    expect(problems({ key: "q", parentId: LAST.id })).toEqual({});
    // A key of something retired is free.
    expect(problems({ key: "o" })).toEqual({});
  });

  it.each([
    [{ name: "   " }, "name", "It needs a name."],
    [{ name: "x".repeat(300) }, "name", "At most 60 characters, please; this has 300."],
    [{ name: " invoices" }, "name", "“Invoices” is there already."],
    [{ name: "Old" }, "name", "“Old” is there already, retired; bring it back, or choose another name."],
    [{ code: "Q" }, "code", "Two or three letters, such as TU."],
    [{ code: "Q1" }, "code", "Two or three letters, such as TU."],
    [{ code: "TU" }, "code", "“Tuning” has this code."],
    [{ key: "i" }, "key", "“Invoices” has this key."],
    [{ key: "Shift" }, "key", "One letter or digit, or nothing."],
    [{ parentId: id("gone") }, "parentId", "That category is no longer there."],
    [{ ink: "pink" as never }, "ink", "Choose one of the twelve inks."],
    [{ description: "x".repeat(501) }, "description", "At most 500 characters."],
  ] as const)("has its problem beside the field: %j", (part, field, words) => {
    expect(inEnglish(problems(part))).toEqual({ [field]: words });
  });

  it("may have a name that stands elsewhere in the tree, but not twice on a level", () => {
    expect(problems({ name: "Reminders" })).toEqual({});
    expect(inEnglish(problems({ name: "Reminders", parentId: INVOICES.id }))).toHaveProperty("name");
  });

  it("never stands under itself", () => {
    for (const parent of [INVOICES, REMINDERS, LAST]) {
      expect(inEnglish(checkCategory({ ...INVOICES, parentId: parent.id }, INVOICES.id, TREE))).toEqual({
        parentId: "It cannot stand under itself.",
      });
    }
  });

  it("stands under one of its own tray or of all trays", () => {
    const own = aCategory("Own", { trayId: OFFICE });
    const under = (trayId: TrayId | null) =>
      checkCategory({ ...DRAFT, trayId, parentId: own.id }, null, [...TREE, own]).parentId;
    expect(under(OFFICE)).toBeUndefined();
    expect(inEnglish(under(PARTS))).toBe("One of all trays cannot stand under one of a tray.");
    expect(inEnglish(under(null))).toBe("One of all trays cannot stand under one of a tray.");
  });
});

describe("a proposed code", () => {
  it.each([
    ["Tuning round", [], "TR"],
    ["Invoices", [], "IN"],
    ["Invoices", ["IN"], "IV"],
    ["Élan vital", [], "EV"],
    ["Tuning", ["TU", "TN", "TI", "TG"], "TUN"],
    ["大工", [], "CA"],
    ["X", ["XA"], "XB"],
  ])("for %s is made of its letters", (name, taken, code) => {
    expect(proposeCode(name, new Set(taken))).toBe(code);
  });

  it("is two or three letters and none that is taken, whatever the name", () => {
    fc.assert(
      fc.property(fc.string(), fc.array(fc.stringMatching(/^[A-Z]{2,3}$/)), (name, taken) => {
        const code = proposeCode(name, new Set(taken));
        expect(code).toMatch(/^[A-Z]{2,3}$/);
        expect(taken).not.toContain(code);
      }),
    );
  });
});

describe("the categories of a conversation", () => {
  const entry = (version: number, effect: Effect, at = hour(version)): JournalEntry => ({
    id: trustedId<EntryId>(`e${version}`),
    version,
    at,
    by: INES,
    effect,
  });
  const give = (version: number, categoryId: string, at?: ReturnType<typeof hour>) =>
    entry(version, { kind: "categorised", categoryId: id(categoryId) }, at);
  const take = (version: number, categoryId: string) =>
    entry(version, { kind: "uncategorised", categoryId: id(categoryId) });
  const replaced = (at: number, categoryId: string, by: string | null): CategoryReplacement => ({
    at: hour(at),
    categoryId: id(categoryId),
    by: by === null ? null : id(by),
  });

  it("are those given and not taken, in the order of giving; given twice, in the first place", () => {
    expect(givenCategories([give(1, "b"), give(2, "a"), take(3, "b"), give(4, "b"), give(5, "a")], [])).toEqual([
      "a",
      "b",
    ]);
  });

  it("have the successor of what was merged, in its place and once", () => {
    const merged = [replaced(5, "a", "b")];
    expect(givenCategories([give(1, "a"), give(2, "c")], merged)).toEqual(["b", "c"]);
    expect(givenCategories([give(1, "b"), give(2, "a")], merged)).toEqual(["b"]);
    // What was taken off before the two were one is gone, and what was not stays.
    expect(givenCategories([give(1, "a"), give(2, "b"), take(3, "a")], merged)).toEqual(["b"]);
    // After it, the successor stands for both.
    expect(givenCategories([give(1, "a"), take(6, "b")], merged)).toEqual([]);
  });

  it("lose what was deleted, and follow one merging after another", () => {
    expect(givenCategories([give(1, "a"), give(2, "b")], [replaced(5, "a", null)])).toEqual(["b"]);
    expect(givenCategories([give(1, "a")], [replaced(5, "a", "b"), replaced(6, "b", "c")])).toEqual(["c"]);
    expect(givenCategories([give(1, "a")], [replaced(5, "a", "b"), replaced(6, "b", null)])).toEqual([]);
  });

  it("count an old step done again as giving the successor", () => {
    expect(givenCategories([give(9, "a")], [replaced(5, "a", "b")])).toEqual(["b"]);
    expect(givenCategories([give(9, "a")], [replaced(5, "a", null)])).toEqual([]);
  });

  it("never have one that is no more, whatever was given when, and are the same again without the replacement", () => {
    const step = fc.record({ gives: fc.boolean(), which: fc.constantFrom("a", "b", "c"), at: fc.nat(9) });
    const ends = fc.record({ at: fc.nat(9), which: fc.constantFrom("a", "b"), by: fc.constantFrom("c", null) });
    fc.assert(
      fc.property(fc.array(step), fc.array(ends, { maxLength: 2 }), (steps, endings) => {
        const entries = steps.map(({ gives, which, at }, version) => {
          const { effect } = gives ? give(version, which) : take(version, which);
          return entry(version, effect, hour(at));
        });
        const over = endings.map(({ at, which, by }) => replaced(at, which, by));
        const given = givenCategories(entries, over);
        expect(given.filter((one) => over.some(({ categoryId }) => categoryId === one))).toEqual([]);
        expect(new Set(given).size).toBe(given.length);
      }),
    );
  });
});

describe("a table of categories", () => {
  const plan = (lines: Parameters<typeof planCategoryTable>[0], seen: readonly Category[] = TREE) =>
    planCategoryTable(lines, seen, OFFICE, idMaker());

  it("that was written changes nothing when it is read", () => {
    const lines = linesOfCategories([...TREE, aCategory("Old", { retired: true, listed: "never" })]);
    const seen = [...TREE, aCategory("Old", { retired: true, listed: "never" })];
    expect(lines.map(({ path }) => path)).toContain("Invoices › Reminders › Last ones");
    expect(plan(lines, seen).map(({ kind }) => kind)).toEqual(lines.map(() => "same"));
  });

  it("makes what is new of the tray, children after their parents, with codes and inks where it has none", () => {
    const planned = plan([
      { path: "Suppliers", ink: "Copper" },
      { path: "Suppliers > Tin", key: "t" },
      { path: "Tuning" },
    ]);
    expect(planned.map((one) => [one.path, one.kind])).toEqual([
      ["Suppliers", "new"],
      ["Suppliers › Tin", "new"],
      ["Tuning", "same"],
    ]);
    const [suppliers, tin] = planned.flatMap((one) => (one.kind === "new" ? [one.category] : []));
    expect(suppliers).toMatchObject({ trayId: OFFICE, code: "SU", ink: "copper", listed: "open", retired: false });
    expect(tin).toMatchObject({ parentId: suppliers?.id, code: "TI", ink: "copper", key: "t" });
  });

  it("changes those of the tray by their path, and leaves alone what it has no column for", () => {
    const own = aCategory("Own", { trayId: OFFICE, key: "o", description: "of ours", ink: "brick" });
    const [changed] = plan([{ path: "own", code: "own", retired: "yes" }], [own]);
    expect(inEnglish(changed)).toMatchObject({
      kind: "changed",
      category: { ...own, code: "OWN", retired: true },
    });
    const [emptied] = plan([{ path: "Own", key: "", description: "" }], [own]);
    expect(inEnglish(emptied)).toMatchObject({ category: { key: null, description: "", code: "OW" } });
  });

  it.each([
    [{}, "It has no path."],
    [{ path: " › " }, "It has no path."],
    [{ path: "Nowhere › Here" }, "There is no “Nowhere” above it."],
    [{ path: "New", ink: "pink" }, "“pink” is none of the twelve inks."],
    [{ path: "New", listed: "often" }, "“often” is none of always, open, never."],
    [{ path: "New", code: "TU" }, "“Tuning” has this code."],
    [{ path: "Tuning", ink: "brick" }, "It is common to all trays and is not changed from here."],
  ])("says what is wrong with a line: %j", (line, problem) => {
    expect(inEnglish(plan([line]))).toMatchObject([{ kind: "problem", problem }]);
  });
});

it("a tray can begin with any of the sets, and with all of them one after the other", () => {
  const newId = idMaker();
  const seen: Category[] = [];
  for (const { id: set, categories } of inEnglish(STARTING_SETS)) {
    const lines = categories.map(({ name: own, ink, under }) => ({
      path: under === undefined ? own : `${under} › ${own}`,
      ink,
    }));
    const planned = planCategoryTable(lines, seen, OFFICE, newId);
    expect(
      planned.filter(({ kind }) => kind !== "new"),
      set,
    ).toEqual([]);
    for (const one of planned) if (one.kind === "new") seen.push(one.category);
  }
});
