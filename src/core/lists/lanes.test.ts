import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  arrivalsAmong,
  comparePlaced,
  type Lane,
  type LaneChanges,
  linesOf,
  type Placed,
  withChanges,
  withPage,
} from "./lanes";

const row = (id: string, sortKey: number): Placed => ({ id, sortKey });
const lane = (key: string, rows: Placed[], count = rows.length): Lane<Placed> => ({ key, name: key, count, rows });
const ids = (lanes: readonly Lane<Placed>[]) => lanes.map(({ rows }) => rows.map(({ id }) => id).join(""));

describe("a list that others change", () => {
  const before = [lane("one", [row("a", 9), row("b", 7), row("c", 5)])];
  const changes = (now: Placed[], gone: string[] = [], count = 3): LaneChanges<Placed> => ({
    ids: [...now.map(({ id }) => id), ...gone],
    rows: now.map((one) => ({ row: one, laneKeys: ["one"] })),
    lanes: [{ key: "one", name: "one", count }],
  });
  it.each<[string, LaneChanges<Placed>, string]>([
    ["takes out what left it", changes([], ["b"], 2), "ac"],
    ["puts in what came, in its place", changes([row("d", 8)], [], 4), "adbc"],
    ["moves what has another place now", changes([row("c", 10)]), "cab"],
    ["puts what belongs last at its end where all is loaded", changes([row("d", 1)], [], 4), "abcd"],
  ])("%s", (_, change, expected) => expect(ids(withChanges(before, change, true))).toEqual([expected]));

  it("does not put in what belongs below what is loaded", () => {
    const part = [lane("one", [row("a", 9), row("b", 7)], 50)];
    const [after] = withChanges(part, changes([row("d", 1)], [], 51), true);
    expect(after).toMatchObject({ count: 51, rows: [{ id: "a" }, { id: "b" }] });
  });

  it("keeps still what is held: nothing comes, nothing goes, nothing moves", () => {
    const held = { notShown: new Set(["d"]), kept: new Set(["a", "b", "c"]) };
    const change = changes([row("d", 8), row("c", 10)], ["b"], 3);
    expect(ids(withChanges(before, change, true, held))).toEqual(["abc"]);
    expect(arrivalsAmong(before, change)).toEqual(["d"]);
  });

  it("keeps a lane that emptied while somebody looks at a row of it", () => {
    const change: LaneChanges<Placed> = { ids: ["a"], rows: [], lanes: [] };
    expect(withChanges([lane("one", [row("a", 1)])], change, true)).toEqual([]);
    const held = { notShown: new Set<string>(), kept: new Set(["a"]) };
    expect(ids(withChanges([lane("one", [row("a", 1)])], change, true, held))).toEqual(["a"]);
  });

  it("shows a row in each lane that it stands in, and moves it between them", () => {
    const two = [lane("x", [row("a", 1)]), lane("y", [row("a", 1), row("b", 0)])];
    const change: LaneChanges<Placed> = {
      ids: ["a"],
      rows: [{ row: row("a", 1), laneKeys: ["z"] }],
      lanes: [
        { key: "y", name: "y", count: 1 },
        { key: "z", name: "z", count: 1 },
      ],
    };
    expect(withChanges(two, change, true).map(({ key, rows }) => [key, rows.map(({ id }) => id)])).toEqual([
      ["y", ["b"]],
      ["z", ["a"]],
    ]);
  });

  it("is in order after any changes", () => {
    const placed = fc.record({ id: fc.stringMatching(/^[a-h]$/), sortKey: fc.integer({ min: 0, max: 9 }) });
    const distinct = fc.uniqueArray(placed, { selector: ({ id }) => id, maxLength: 8 });
    fc.assert(
      fc.property(distinct, distinct, fc.boolean(), (start, now, descending) => {
        const sorted = start.toSorted((a, b) => comparePlaced(a, b, descending));
        const [after] = withChanges([lane("one", sorted)], changes(now, [], 99), descending);
        const rows = after?.rows ?? [];
        expect(rows).toEqual(rows.toSorted((a, b) => comparePlaced(a, b, descending)));
        expect(new Set(rows.map(({ id }) => id)).size).toBe(rows.length);
      }),
    );
  });
});

describe("the next page of a lane", () => {
  it("is put after what is there, what is known already left alone", () => {
    const after = withPage([lane("one", [row("a", 9)], 3)], "one", [row("a", 9), row("b", 7)]);
    expect(after[0]).toMatchObject({ count: 3, rows: [{ id: "a" }, { id: "b" }] });
  });
  it("says that the end is reached when there is none", () => {
    expect(withPage([lane("one", [row("a", 9)], 3)], "one", [])[0]).toMatchObject({ count: 1 });
  });
});

describe("the lines of a list", () => {
  const lanes = [lane("one", [row("a", 2)], 4), lane("two", [row("b", 1)])];
  const kinds = (folded: string[], maxBlank = 100) =>
    linesOf(lanes, new Set(folded), maxBlank).map((line) => (line.kind === "row" ? line.row.id : line.kind));
  it("are headings, rows, and a blank for each that is not loaded", () => {
    expect(kinds([])).toEqual(["heading", "a", "blank", "blank", "blank", "heading", "b"]);
  });
  it("leave out what is folded, and blanks beyond a number", () => {
    expect(kinds(["one"])).toEqual(["heading", "heading", "b"]);
    expect(kinds([], 1)).toEqual(["heading", "a", "blank", "heading", "b"]);
  });
  it("have no heading where nothing is grouped", () => {
    expect(linesOf([{ ...lane("", [row("a", 1)]), name: "" }], new Set(), 9)).toHaveLength(1);
  });
});
