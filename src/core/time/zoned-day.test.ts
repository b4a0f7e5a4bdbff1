import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DAY, HOUR, instant, later, readInstant } from "../kernel/instant";
import { zonedDay } from "./zoned-day";

const at = (text: string) => readInstant(text) ?? instant(Number.NaN);

describe("a day in a zone", () => {
  it.each([
    ["2026-03-29T00:59:00Z", "Europe/London", { day: 29, month: 3, hour: 0, minute: 59, weekday: 6 }],
    ["2026-03-29T01:00:00Z", "Europe/London", { day: 29, month: 3, hour: 2, minute: 0, weekday: 6 }],
    ["2026-12-31T23:30:00Z", "Asia/Kolkata", { year: 2027, day: 1, month: 1, hour: 5, minute: 0, weekday: 4 }],
    ["1969-12-31T12:00:00Z", "UTC", { number: -1, weekday: 2 }],
    ["1970-01-01T00:00:00Z", "UTC", { number: 0, weekday: 3 }],
  ])("%s in %s is %j", (text, zone, part) => expect(zonedDay(at(text), zone)).toMatchObject(part));

  it("has a number that rises by one a day, whatever the clocks do", () => {
    const zone = fc.constantFrom("Europe/London", "America/New_York", "Pacific/Auckland", "UTC");
    fc.assert(
      fc.property(zone, fc.integer({ min: -20_000, max: 40_000 }), (where, days) => {
        // Nine by UTC is hours from midnight in all of them: 24 hours later it is the next day.
        const nine = instant(days * DAY + 9 * HOUR);
        const [today, tomorrow] = [zonedDay(nine, where), zonedDay(later(nine, DAY), where)];
        expect(tomorrow.number - today.number).toBe(1);
        expect((today.weekday + 1) % 7).toBe(tomorrow.weekday);
      }),
    );
  });

  it("does not know zones that there are not", () => {
    expect(() => zonedDay(instant(0), "Mars/Base")).toThrow(RangeError);
  });
});
