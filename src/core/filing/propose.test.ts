import { describe, expect, it } from "vitest";
import { type CategoryId, type MemberId, type RecordId, trustedId } from "../kernel/ids";
import { type AlreadyGiven, type Precedent, propose } from "./propose";

const [INES, TUNING, VANE_HOUSE] = [
  trustedId<MemberId>("ines"),
  trustedId<CategoryId>("tu"),
  trustedId<RecordId>("c33"),
];
const settled: Precedent = {
  ownerId: INES,
  categoryIds: [TUNING],
  recordIds: [VANE_HOUSE],
  standing: "settled",
  wasAnswered: true,
};
const nothing: AlreadyGiven = { ownerId: null, categoryIds: [], recordIds: [] };
const times = (count: number, precedent: Precedent) => Array.from({ length: count }, () => precedent);
const kinds = (precedents: Precedent[], given = nothing) => propose(precedents, given).map(({ kind }) => kind);

describe("what is proposed", () => {
  it("is what was mostly done with the same person", () => {
    expect(kinds(times(4, settled))).toEqual(["file", "categorise", "assign"]);
    expect(propose(times(4, settled), nothing)[0]).toMatchObject({ was: 4, of: 4, confidence: 5 / 6 });
  });
  it("is nothing where little is known, or where it went now so, now so", () => {
    expect(kinds(times(1, settled))).toEqual([]);
    const other = { ...settled, categoryIds: [], recordIds: [], ownerId: null };
    expect(kinds([...times(2, settled), ...times(3, other)])).toEqual([]);
  });
  it("is not what is so already", () => {
    expect(kinds(times(4, settled), { ownerId: INES, categoryIds: [TUNING], recordIds: [] })).toEqual(["file"]);
  });
  it("is to settle what never needed an answer, and then nobody to own it", () => {
    const read = { ...settled, wasAnswered: false };
    expect(kinds(times(5, read))).toEqual(["file", "categorise", "settle"]);
  });
  it("is at most four, the surest first", () => {
    const many = Array.from({ length: 6 }, (_, at) => trustedId<CategoryId>(`c${at}`));
    const proposals = propose([...times(5, { ...settled, categoryIds: many }), settled], nothing);
    expect(proposals).toHaveLength(4);
    expect(proposals.map(({ confidence }) => confidence)).toEqual(
      proposals.map(({ confidence }) => confidence).toSorted((a, b) => b - a),
    );
  });
});
