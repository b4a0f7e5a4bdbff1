import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { HOUR, instant, later } from "../kernel/instant";
import { zonedDay } from "../time/zoned-day";
import { usualHours } from "../worktime/working-hours";
import { readRound } from "./check-round";
import { isRoundOver, lastRound, nextRound } from "./round";

const london = usualHours("Europe/London");
const mass = { times: [11 * 60, 16 * 60] };
const at = (text: string) => instant(Date.parse(text));
const written = (moment: number | null) => (moment === null ? null : new Date(moment).toISOString());

describe("a round", () => {
  it.each([
    ["before its first hour", "2026-11-02T09:00:00Z", "2026-11-02T11:00:00.000Z"],
    ["between two", "2026-11-02T11:00:00Z", "2026-11-02T16:00:00.000Z"],
    ["after its last, on the next day", "2026-11-02T16:00:01Z", "2026-11-03T11:00:00.000Z"],
    ["over a weekend", "2026-11-06T17:00:00Z", "2026-11-09T11:00:00.000Z"],
    ["in summer, by the clock on the wall", "2026-07-01T09:00:00Z", "2026-07-01T10:00:00.000Z"],
  ])("comes next %s", (_, now, next) => expect(written(nextRound(mass, at(now), london))).toBe(next));

  it("leaves holidays out, and came last on the working day before them", () => {
    const off = { ...london, holidays: ["2026-12-25", "2026-12-28"] };
    expect(written(nextRound(mass, at("2026-12-24T16:30:00Z"), off))).toBe("2026-12-29T11:00:00.000Z");
    expect(written(lastRound(mass, at("2026-12-28T12:00:00Z"), off))).toBe("2026-12-24T16:00:00.000Z");
  });

  it("comes at a time that the clocks skip as much later, and once at one that they have twice", () => {
    const nights = { ...usualHours("Europe/London"), week: Array(7).fill({ from: 0, to: 60 }) };
    const early = { times: [90] };
    expect(written(nextRound(early, at("2026-03-28T12:00:00Z"), nights))).toBe("2026-03-29T01:30:00.000Z");
    const first = nextRound(early, at("2026-10-24T12:00:00Z"), nights);
    expect(written(first)).toMatch(/^2026-10-25T0[01]:30:00.000Z$/);
    expect(written(nextRound(early, first ?? instant(0), nights))).toBe("2026-10-26T01:30:00.000Z");
  });

  it("never comes in a tray without working days, and holds nothing there", () => {
    const closed = { ...london, week: Array(7).fill(null) };
    expect(nextRound(mass, at("2026-11-02T09:00:00Z"), closed)).toBeNull();
    expect(isRoundOver(mass, at("2026-11-02T09:00:00Z"), at("2026-11-02T09:00:01Z"), closed)).toBe(true);
  });

  it("lets in at its hour and not before, whatever the times, the zone and the holidays", () => {
    const zone = fc.constantFrom("Europe/London", "America/St_Johns", "Pacific/Chatham", "Africa/Casablanca", "UTC");
    const times = fc.uniqueArray(fc.integer({ min: 0, max: 24 * 60 - 1 }), { minLength: 1, maxLength: 4 });
    const hours = fc.record({ zone, off: fc.subarray(["2026-03-30", "2026-10-26", "2026-12-25", "2026-12-28"]) });
    const since = fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2026, 11, 31) });
    fc.assert(
      fc.property(times, hours, since, (some, { zone: where, off }, heldSince) => {
        const round = { times: some };
        const calendar = { ...usualHours(where), holidays: off };
        const from = instant(heldSince);
        const next = nextRound(round, from, calendar);
        if (next === null) throw new Error("there is always a next one");
        expect(next).toBeGreaterThan(from);
        expect(isRoundOver(round, from, later(next, -1), calendar)).toBe(
          (lastRound(round, from, calendar) ?? 0) === from,
        );
        expect(isRoundOver(round, from, next, calendar)).toBe(true);
        expect(lastRound(round, next, calendar)).toBe(next);
        const { weekday, hour, minute } = zonedDay(next, where);
        expect(weekday).toBeLessThan(5);
        // But for the hour that the clocks skip.
        const isSkipped = zonedDay(later(next, -HOUR), where).hour !== (hour + 23) % 24;
        if (!isSkipped) expect(some).toContain(hour * 60 + minute);
      }),
      { numRuns: 2_000 },
    );
  });
});

describe("a round as somebody writes it", () => {
  it("has its times in order, each once", () => {
    expect(readRound({ name: " Mass mail ", times: "16:00, 11:00 9:30;11:00" }, [])).toEqual({
      round: { name: "Mass mail", times: [570, 660, 960] },
    });
  });

  it.each([
    [{ name: "", times: "11:00" }, { name: "Give the round a name." }],
    [{ name: "x".repeat(41), times: "11:00" }, { name: "A name has at most 40 characters." }],
    [{ name: "mass MAIL", times: "11:00" }, { name: "Another round has that name." }],
    [{ name: "Late", times: " " }, { times: "Enter at least one time, such as 11:00." }],
    [{ name: "Late", times: "11:00, 24:00" }, { times: "“24:00” is no time of day. Write it as 11:00." }],
    [{ name: "Late", times: "noon" }, { times: "“noon” is no time of day. Write it as 11:00." }],
    [
      { name: "Late", times: Array.from({ length: 13 }, (_, hour) => `${hour}:00`).join() },
      { times: "At most 12 times a day." },
    ],
  ])("%j is refused beside the field", (round, problems) => {
    const read = readRound(round, ["Mass mail"]);
    if (!("problems" in read)) throw new Error("it was taken");
    const said = Object.entries(read.problems).map(([field, problem]) => [field, inEnglish(problem)]);
    expect(Object.fromEntries(said)).toEqual(problems);
  });
});
