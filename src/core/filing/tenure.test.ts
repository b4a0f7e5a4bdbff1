import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { CasesByPeriod } from "./owned";
import { shareByTenure } from "./tenure";

const ALL = ["o:ines", "o:col", "o:mattis", "o:tove"];
const alike = () => 1 / ALL.length;

/** Cases as a list of who had each, a period each unless it says otherwise. */
function had(...owners: string[]): CasesByPeriod {
  const cases = new Map<string, [number, number][]>();
  for (const [period, owner] of owners.entries()) cases.set(owner, [...(cases.get(owner) ?? []), [period, 1]]);
  return cases;
}

describe("who has the next case of what somebody has", () => {
  it("is whoever has had it, and everybody alike where nobody had", () => {
    expect(shareByTenure(had("o:ines", "o:ines", "o:ines", "o:ines"), 4, alike)("o:ines")).toBeGreaterThan(0.85);
    expect(shareByTenure(new Map(), 4, alike)("o:ines")).toBeCloseTo(0.25);
  });

  it("stays with them when somebody else had one, and has passed on when those after are another's", () => {
    const onceElse = shareByTenure(had("o:ines", "o:ines", "o:ines", "o:ines", "o:col"), 5, alike);
    expect(onceElse("o:ines")).toBeGreaterThan(onceElse("o:col"));
    const passedOn = shareByTenure(had("o:ines", "o:ines", "o:ines", "o:ines", "o:col", "o:col", "o:col"), 7, alike);
    expect(passedOn("o:col")).toBeGreaterThan(0.8);
  });

  it("is believed less the longer nothing came", () => {
    const cases = had("o:ines", "o:ines", "o:ines");
    const [soon, late] = [3, 40].map((until) => shareByTenure(cases, until, alike)("o:ines"));
    expect(soon).toBeGreaterThan((late ?? 0) + 0.3);
  });

  it("is shared out where several have it at the same time", () => {
    const shared: CasesByPeriod = new Map([
      [
        "o:ines",
        [
          [0, 6],
          [1, 6],
          [2, 6],
        ],
      ],
      [
        "o:col",
        [
          [0, 5],
          [1, 6],
          [2, 5],
        ],
      ],
    ]);
    const share = shareByTenure(shared, 3, alike);
    expect(share("o:ines")).toBeLessThan(0.75);
    expect(share("o:col")).toBeGreaterThan(share("o:tove"));
  });

  it("is a share of one, whatever was counted", () => {
    const counted = fc.dictionary(
      fc.constantFrom(...ALL, "o:left"),
      fc.array(fc.tuple(fc.integer({ min: 0, max: 13 }), fc.integer({ min: 1, max: 5_000 })), { maxLength: 14 }),
    );
    fc.assert(
      fc.property(counted, (cases) => {
        const shares = ALL.map(shareByTenure(new Map(Object.entries(cases)), 14, alike));
        for (const one of shares) expect(one).toBeGreaterThan(0);
        expect(shares.reduce((sum, one) => sum + one, 0)).toBeLessThan(1.001);
      }),
    );
  });
});
