import { describe, expect, it } from "vitest";
import { countSelected, isSelected, type RowSelection, withLane, withStretch, withToggled } from "./row-selection";

type Row = { readonly id: string };
const rows: readonly Row[] = ["a", "b", "c", "d", "e"].map((id) => ({ id }));
const row = (id: string): Row => ({ id });
const some = (...ids: string[]): RowSelection<Row> => ({ kind: "some", rows: new Map(ids.map((id) => [id, { id }])) });
const idsOf = (chosen: RowSelection<Row>) => (chosen.kind === "some" ? [...chosen.rows.keys()].toSorted() : chosen);
const everything: RowSelection<Row> = { kind: "everything", lane: null, name: "", count: 1_284 };

describe("choosing one", () => {
  it("adds it, and takes it out again", () => {
    expect(idsOf(withToggled(some("a"), row("b")))).toEqual(["a", "b"]);
    expect(idsOf(withToggled(some("a", "b"), row("a")))).toEqual(["b"]);
  });
  it("of everything chooses only this one", () => expect(idsOf(withToggled(everything, row("c")))).toEqual(["c"]));
  it("changes nothing of what was there before", () => {
    const before = some("a");
    withToggled(before, row("b"));
    expect(idsOf(before)).toEqual(["a"]);
  });
});

describe("choosing a stretch", () => {
  it.each([
    ["b", "d", ["b", "c", "d"]],
    ["d", "b", ["b", "c", "d"]],
    ["c", "c", ["c"]],
    [null, "d", ["d"]],
    // The anchor has left the list: from its beginning on.
    ["gone", "b", ["a", "b"]],
  ])("from %s to %s", (anchor, to, ids) => {
    expect(idsOf(withStretch(some(), row(to), anchor, rows))).toEqual(ids);
  });
  it("keeps what was chosen elsewhere", () => {
    expect(idsOf(withStretch(some("e"), row("b"), "a", rows))).toEqual(["a", "b", "e"]);
  });
});

describe("choosing a group", () => {
  const lane = { key: "tuning", name: "Tuning", count: 2, rows: [row("a"), row("b")] };
  it("chooses all of it, then none of it, and completes what was chosen in part", () => {
    expect(idsOf(withLane(some("e"), lane))).toEqual(["a", "b", "e"]);
    expect(idsOf(withLane(some("a", "b", "e"), lane))).toEqual(["e"]);
    expect(idsOf(withLane(some("a"), lane))).toEqual(["a", "b"]);
  });
  it("that is not loaded in full is chosen as everything of it", () => {
    const chosen = withLane(some("e"), { ...lane, count: 300 });
    expect(chosen).toEqual({ kind: "everything", lane: "tuning", name: "Tuning", count: 300 });
    expect(countSelected(chosen)).toBe(300);
    expect(isSelected(chosen, row("x"), "tuning")).toBe(true);
    expect(isSelected(chosen, row("a"), "quotes")).toBe(false);
  });
});

it("what is chosen is counted, everything whatever is loaded", () => {
  expect(countSelected(some("a", "b"))).toBe(2);
  expect(countSelected(everything)).toBe(1_284);
  expect(isSelected(everything, row("x"), "any")).toBe(true);
  expect(isSelected(some("a"), row("b"), "any")).toBe(false);
});
