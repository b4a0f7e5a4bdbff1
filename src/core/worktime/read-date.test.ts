import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { type Instant, instant, readInstant } from "../kernel/instant";
import { dateOffers } from "./date-offers";
import { datesIn } from "./dates-in-text";
import { type DateProblem, dateProblemInWords, otherDate, readDate, readDay } from "./read-date";
import { usualHours } from "./working-hours";

const at = (text: string): Instant => readInstant(text) ?? instant(Number.NaN);
const london = usualHours("Europe/London");
// A Wednesday morning.
const now = at("2026-11-25T09:30:00Z");

describe("a date that somebody enters", () => {
  it.each([
    ["fri 10", "2026-11-27T10:00:00Z"],
    ["Friday 14.30", "2026-11-27T14:30:00Z"],
    ["tomorrow", "2026-11-26T08:00:00Z"],
    ["12 Dec", "2026-12-12T08:00:00Z"],
    ["in 3 working days", "2026-11-30T08:00:00Z"],
    ["3 working hours", "2026-11-25T12:30:00Z"],
    ["end of month", "2026-11-30T17:00:00Z"],
    ["next opening", "2026-11-26T08:00:00Z"],
    ["before we close", "2026-11-25T17:00:00Z"],
    ["2026-12-01 15:00", "2026-12-01T15:00:00Z"],
    ["am 3. Dezember um 15 Uhr", "2026-12-03T15:00:00Z"],
  ])("“%s” is understood", (text, expected) =>
    expect(readDate(text, now, london)).toEqual({ ok: true, value: at(expected) }),
  );

  it.each([
    ["fri 10", "2026-11-27"],
    ["yesterday", "2026-11-24"],
    ["3 Nov 2025", "2025-11-03"],
    ["2026-12-31", "2026-12-31"],
    ["in 3 working days", "2026-11-30"],
    ["Tue 1 Dec 2026", "2026-12-01"],
  ])("“%s” is the day %s", (text, day) => expect(readDay(text, now, london)).toEqual({ ok: true, value: day }));

  it.each<[string, DateProblem]>([
    [" ", "empty"],
    ["whenever", "not-understood"],
    ["2027-02-29", "not-understood"],
  ])("“%s” is no day: %s", (text, problem) =>
    expect(readDay(text, now, london)).toEqual({ ok: false, error: problem }),
  );

  it("means the end of a day where something is due by then", () => {
    expect(readDate("12 Dec", now, london, "closes")).toEqual({ ok: true, value: at("2026-12-12T17:00:00Z") });
    expect(readDate("in 2 working days", now, london, "closes")).toEqual({
      ok: true,
      value: at("2026-11-27T17:00:00Z"),
    });
  });

  it.each<[string, DateProblem]>([
    ["", "empty"],
    ["when the cows come home", "not-understood"],
    ["2026-11-01 10:00", "past"],
    // The clocks of London go from 1:00 to 2:00 on that night.
    ["2027-03-28 01:30", "no-such-time"],
    ["9999 working days", "not-understood"],
    ["0 working days", "closed-for-good"],
  ])("“%s” is %s", (text, problem) => {
    const read = readDate(text, now, london);
    expect(read).toEqual({ ok: false, error: problem });
    expect(dateProblemInWords(problem)).not.toBe("");
  });
});

describe("figures that are read in two ways", () => {
  it.each([
    ["3/12", "2026-12-03T08:00:00Z", "2027-03-12T08:00:00Z"],
    ["2/3/2027", "2027-03-02T08:00:00Z", "2027-02-03T08:00:00Z"],
    ["12/12", "2026-12-12T08:00:00Z", null],
    ["13/12", "2026-12-13T08:00:00Z", null],
    ["12 Dec", "2026-12-12T08:00:00Z", null],
    ["2026-12-03", "2026-12-03T08:00:00Z", null],
  ])("“%s” is %s, and month first %s", (text, first, other) => {
    expect(readDate(text, now, london)).toEqual({ ok: true, value: at(first) });
    expect(otherDate(text, now, london)).toBe(other === null ? null : at(other));
    const [mention] = datesIn(`Please send it by ${text}, as ever.`, now, london);
    expect(mention?.other ?? null).toBe(other === null ? null : at(other));
  });
});

describe("days of the week that are read in two ways", () => {
  it.each([
    ["Wednesday", "2026-11-25T17:00:00Z", "2026-12-02T17:00:00Z"],
    ["wednesday at 15", "2026-11-25T15:00:00Z", "2026-12-02T15:00:00Z"],
    ["next Friday", "2026-12-04T17:00:00Z", "2026-11-27T17:00:00Z"],
    ["nächsten Freitag", "2026-12-04T17:00:00Z", "2026-11-27T17:00:00Z"],
    ["vendredi prochain", "2026-12-04T17:00:00Z", "2026-11-27T17:00:00Z"],
    ["this Wednesday", "2026-11-25T17:00:00Z", null],
    ["next Wednesday", "2026-12-02T17:00:00Z", null],
    ["next Monday", "2026-11-30T17:00:00Z", null],
    ["Friday next week", "2026-12-04T17:00:00Z", null],
    ["Friday", "2026-11-27T17:00:00Z", null],
    ["Wednesday 2 December", "2026-12-02T17:00:00Z", null],
  ])("“%s” of a Wednesday is %s, and to others %s", (text, first, other) => {
    expect(readDate(text, now, london, "closes")).toEqual({ ok: true, value: at(first) });
    expect(otherDate(text, now, london, "closes")).toBe(other === null ? null : at(other));
  });

  it("mean a week later, once that day is over", () => {
    const evening = at("2026-11-25T19:00:00Z");
    expect(readDate("Wednesday", evening, london, "closes")).toEqual({ ok: true, value: at("2026-12-02T17:00:00Z") });
    expect(otherDate("Wednesday", evening, london, "closes")).toBeNull();
  });
});

describe("the dates that a thread names", () => {
  it("are found with the words that named them", () => {
    const found = datesIn("Could you come on Tuesday at 10, or the delivery is on 12 December?", now, london);
    expect(found.map((one) => one.at)).toEqual([at("2026-12-01T10:00:00Z"), at("2026-12-12T08:00:00Z")]);
    expect(found[1]?.words).toContain("12 December");
  });
  it("are no days where only an hour or a number is named", () => {
    expect(datesIn("It costs 1200 and takes about two hours, call number 9.", now, london)).toEqual([]);
  });
  it("are offered after what the hours give, the soonest first, none in the past, none twice", () => {
    const offers = dateOffers(now, london, ["By Friday please; it was due on 3 November 2026.", "On Friday then."]);
    expect(offers.map((offer) => offer.at)).toEqual(offers.map((offer) => offer.at).toSorted((a, b) => a - b));
    expect(offers.filter((offer) => offer.at === at("2026-11-27T08:00:00Z"))).toHaveLength(1);
    expect(offers.every((offer) => offer.at > now)).toBe(true);
    expect(inEnglish(offers.map(({ label }) => label))).toEqual(
      expect.arrayContaining(["before we close today", "next opening", "end of the month"]),
    );
  });
});
