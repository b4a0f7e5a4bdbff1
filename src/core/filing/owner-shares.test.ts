import { describe, expect, it } from "vitest";
import type { Likely } from "./evidence";
import { UNFILED } from "./lesson";
import { type Given, shareOfEither } from "./owner-shares";
import type { CategoryPiece, RecordPiece } from "./pieces";

const ALL = ["o:ines", "o:col", "o:mattis", "o:tove"];
// Who has what: accounts mostly goes beside tuning, which is Ines's, and where it stands alone it is Col's.
const HAVE: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  "u:tuning": { "o:ines": 0.94, "o:col": 0.02 },
  "u:accounts": { "o:ines": 0.6, "o:col": 0.36 },
  "r:mill": { "o:mattis": 0.9, "o:ines": 0.04 },
};
const usual = () => 1 / ALL.length;
const shareIn = (feature: string) => (label: string) => HAVE[feature]?.[label] ?? 0.02;

const category = (name: string, likelihood: number) =>
  ({ label: `c:${name}`, likelihood, says: {} }) as unknown as Likely<CategoryPiece>;
const record = (label: string, likelihood: number) =>
  ({ label, likelihood, says: {} }) as unknown as Likely<RecordPiece>;

function shares(given: Partial<Given>) {
  const share = shareOfEither(ALL, usual, { categories: [], records: [], ...given }, shareIn);
  return Object.fromEntries(ALL.map((label) => [label.slice(2), share(label)]));
}

describe("whose a letter is by where it goes and what it is about", () => {
  it("is surer by two categories that speak for the same colleague than by either", () => {
    const [alone, both] = [
      shares({ categories: [category("tuning", 0.9)] }),
      shares({ categories: [category("tuning", 0.9), category("accounts", 0.9)] }),
    ];
    expect(both.ines).toBeGreaterThan(0.9);
    expect(both.col).toBeLessThan(0.1);
    expect(alone.ines).toBeCloseTo(0.94);
  });

  it("lies between two categories of which each is as likely as not", () => {
    const between = shares({ categories: [category("tuning", 0.5), category("accounts", 0.5)] });
    expect(between.ines).toBeGreaterThan(0.6);
    expect(between.ines).toBeLessThan(0.98);
  });

  it("is mostly that of the record, as far as it is filed, and else of what it is about", () => {
    const filed = shares({
      records: [record("r:mill", 0.95), record(UNFILED, 0.05)],
      categories: [category("tuning", 0.9)],
    });
    expect(filed.mattis).toBeGreaterThan(0.7);
    const hardly = shares({
      records: [record("r:mill", 0.1), record(UNFILED, 0.9)],
      categories: [category("tuning", 0.9)],
    });
    expect(hardly.ines).toBeGreaterThan(0.8);
  });

  it("is everybody's as usual where nothing is known of it", () => {
    expect(shares({})).toEqual({ ines: 0.25, col: 0.25, mattis: 0.25, tove: 0.25 });
  });
});
