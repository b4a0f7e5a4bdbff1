import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BANDS, calibration, NO_RECORD, withOutcome } from "./calibration";

describe("a confidence", () => {
  it("is taken at its word until there are outcomes, then as they were", () => {
    expect(calibration(NO_RECORD)(0.85)).toBeCloseTo(0.85);
    let record = NO_RECORD;
    for (let at = 0; at < 300; at += 1) record = withOutcome(record, 0.85, at % 2 === 0);
    expect(calibration(record)(0.85)).toBeGreaterThan(0.48);
    expect(calibration(record)(0.85)).toBeLessThan(0.6);
    expect(withOutcome(NO_RECORD, 1, true).at(-1)).toEqual({ said: 1, right: 1 });
  });
  it("never says less for more, and stays between 0 and 1, whatever the outcomes were", () => {
    const band = fc.record({ said: fc.nat(200), share: fc.double({ min: 0, max: 1, noNaN: true }) });
    fc.assert(
      fc.property(fc.array(band, { minLength: BANDS, maxLength: BANDS }), (bands) => {
        const record = bands.map(({ said, share }) => ({ said, right: Math.round(said * share) }));
        const said = Array.from({ length: 101 }, (_, at) => calibration(record)(at / 100));
        for (let at = 1; at < said.length; at += 1) {
          expect(said[at]).toBeGreaterThanOrEqual((said[at - 1] ?? 0) - 1e-9);
        }
        expect(Math.min(...said)).toBeGreaterThanOrEqual(0);
        expect(Math.max(...said)).toBeLessThanOrEqual(1);
      }),
    );
  });
  it("follows what comes of it now, and forgets what came of it long ago", () => {
    let record = NO_RECORD;
    for (let at = 0; at < 2_000; at += 1) record = withOutcome(record, 0.75, true);
    for (let at = 0; at < 200; at += 1) record = withOutcome(record, 0.75, false);
    expect(calibration(record)(0.75)).toBeLessThan(0.2);
  });
});
