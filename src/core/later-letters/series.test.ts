import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { dateOf, type Instant, instant, readInstant } from "../kernel/instant";
import { spanOn, type WorkingHours } from "../worktime/working-hours";
import { seriesMoments } from "./series";

const open = { from: 8 * 60, to: 17 * 60 };
const HOURS: WorkingHours = {
  ...{ zone: "Europe/Berlin", week: [open, open, open, open, open, null, null] },
  holidays: ["2026-12-25", "2026-12-26", "2027-01-01"],
};
const at = (text: string) => readInstant(text) ?? (0 as Instant);
const told = (about: string, hours = HOURS) =>
  Object.fromEntries(
    seriesMoments(at(about), hours).map((one) => [one.step, dateOf(one.at).toISOString().slice(0, 16)]),
  );

describe("when the letters of a series go", () => {
  it("is when the office opens on the day of each step, over a clock change too", () => {
    // 31 March 2027 is a Wednesday; clocks go ahead on the 28th.
    expect(told("2027-03-31T10:00:00Z")).toEqual({
      "month-before": "2027-02-26T07:00",
      "two-weeks-before": "2027-03-17T07:00",
      "week-before": "2027-03-24T07:00",
      "three-days-before": "2027-03-26T07:00",
      "day-before": "2027-03-30T06:00",
      "on-day": "2027-03-31T06:00",
      "day-after": "2027-04-01T06:00",
      "week-after": "2027-04-07T06:00",
      "month-after": "2027-04-30T06:00",
    });
  });

  it("is the working day before a holiday or a weekend, and the one after it for what comes after the day", () => {
    const moments = told("2026-12-25T12:00:00Z");
    expect([moments["on-day"], moments["day-after"], moments["week-after"]]).toEqual([
      "2026-12-24T07:00",
      "2026-12-28T07:00",
      "2027-01-04T07:00",
    ]);
  });

  it("is never for an office that does not open", () => {
    expect(seriesMoments(at("2027-03-31T10:00:00Z"), { ...HOURS, week: HOURS.week.map(() => null) })).toEqual([]);
  });

  it("is on a working day, in order but where closed days push two together", () => {
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(2026, 0), max: Date.UTC(2030, 0) }), (ms) => {
        const moments = seriesMoments(instant(ms), HOURS);
        expect(moments).toHaveLength(9);
        for (const one of moments) expect(spanOn(one.at, HOURS)?.opens).toBe(one.at);
        const order = moments.map((one) => one.at);
        expect(order).toEqual(order.toSorted((a, b) => a - b));
      }),
    );
  });
});
