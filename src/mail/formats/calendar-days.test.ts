import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { calendarDays } from "./calendar-days";

const calendar = (...events: readonly (readonly string[])[]) =>
  ["BEGIN:VCALENDAR", ...events.flatMap((lines) => ["BEGIN:VEVENT", ...lines, "END:VEVENT"]), "END:VCALENDAR"].join(
    "\r\n",
  );
const days = (...events: readonly (readonly string[])[]) => calendarDays(calendar(...events), "2026-01-01");

describe("the days of a calendar file", () => {
  it.each<[string, readonly string[], readonly string[]]>([
    ["one whole day", ["DTSTART;VALUE=DATE:20261225", "DTEND;VALUE=DATE:20261226"], ["2026-12-25"]],
    ["one without an end", ["DTSTART;VALUE=DATE:20261225"], ["2026-12-25"]],
    [
      "several days",
      ["DTSTART;VALUE=DATE:20261230", "DTEND;VALUE=DATE:20270102"],
      ["2026-12-30", "2026-12-31", "2027-01-01"],
    ],
    ["a time of day", ["DTSTART:20261224T120000Z", "DTEND:20261224T180000Z"], ["2026-12-24"]],
    [
      "every year, for five years",
      ["DTSTART;VALUE=DATE:20200501", "RRULE:FREQ=YEARLY"],
      ["2026-05-01", "2027-05-01", "2028-05-01", "2029-05-01", "2030-05-01"],
    ],
  ])("%s", (_, lines, expected) => expect(days(lines)).toEqual({ days: expected, problems: [] }));

  it("are each there once, in order", () => {
    const [late, early] = [["DTSTART;VALUE=DATE:20261225"], ["DTSTART;VALUE=DATE:20260101"]];
    expect(days(late, early, late).days).toEqual(["2026-01-01", "2026-12-25"]);
  });

  it("are kept beside what is broken, which is named by its line", () => {
    const read = days(
      ["DTSTART;VALUE=DATE:20261225"],
      ["SUMMARY:no date"],
      ["DTSTART:someday"],
      ["DTSTART;VALUE=DATE:20261226"],
    );
    expect(read.days).toEqual(["2026-12-25", "2026-12-26"]);
    expect(read.problems.map(({ line }) => line)).toEqual([5, 8]);
  });

  it("are none in a file of something else", () => {
    expect(inEnglish(calendarDays("Dear all,", "2026-01-01"))).toEqual({
      days: [],
      problems: [{ line: 1, words: "there is no event in it" }],
    });
  });
});
