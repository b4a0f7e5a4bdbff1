import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { type Instant, readInstant } from "../kernel/instant";
import { usualHours } from "../worktime/working-hours";
import { endedWeek, weekInWords } from "./week";

const at = (text: string) => readInstant(`${text}:00Z`) ?? (0 as Instant);
const london = usualHours("Europe/London");

describe("the week that is over", () => {
  // 23 November 2026 is a Monday.
  it.each([
    ["2026-11-23T07:59", null],
    ["2026-11-23T08:00", "2026-11-23"],
    ["2026-11-26T12:00", "2026-11-23"],
    ["2026-11-29T23:59", "2026-11-23"],
    ["2026-11-30T00:00", null],
    // The clocks of London went back on Sunday, 25 October.
    ["2026-10-26T08:30", "2026-10-26"],
  ])("is told at %s of the one before %s", (now, monday) =>
    expect(endedWeek(at(now), london)?.monday ?? null).toBe(monday),
  );

  it("lasts from Monday to Monday, and waits for the office to open after a holiday", () => {
    expect(endedWeek(at("2026-11-25T12:00"), london)).toMatchObject({
      from: at("2026-11-16T00:00"),
      to: at("2026-11-23T00:00"),
    });
    const closed = { ...london, holidays: ["2026-11-23"] };
    expect(endedWeek(at("2026-11-23T12:00"), closed)).toBeNull();
    expect(endedWeek(at("2026-11-24T08:00"), closed)?.monday).toBe("2026-11-23");
    expect(endedWeek(at("2026-11-25T12:00"), { ...london, week: london.week.map(() => null) })).toBeNull();
  });

  it("is said in a line", () => {
    const week = { arrived: 84, answered: 51, settled: 60 };
    expect(inEnglish(weekInWords({ ...week, ends: new Map() }))).toBe(
      "last week 84 came, 51 answered, 60 settled; now no loose ends",
    );
    const ends = new Map([
      ["nobodys", 1] as const,
      ["overdue", 4] as const,
      ["lapsing", 2] as const,
      ["not-sent", 1] as const,
    ]);
    expect(inEnglish(weekInWords({ ...week, ends }))).toBe(
      "last week 84 came, 51 answered, 60 settled; now 8 loose ends (4 “Overdue without a reminder”, 2 “Soon over”, 1 “Not sent, and nobody reacted”)",
    );
  });
});
