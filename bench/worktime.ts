import { later, MINUTE, readInstant } from "~/core/kernel/instant";
import { addWorkingHours, usualHours } from "~/core/worktime/working-hours";
import type { Figure } from "./measure";

const ADDS = 200_000;
const MOST_MICROSECONDS = 10;

/** What adding working hours costs, over three years of a zone whose clocks change, with a break at noon. */
export function workTimeFigure(): Figure {
  const week = usualHours("Europe/London").week.map((day) =>
    day === null ? null : { ...day, breaks: [{ from: 720, to: 780 }] },
  );
  const hours = { zone: "Europe/London", week, holidays: ["2026-12-25", "2026-12-28"] };
  const start = readInstant("2025-01-01T00:00:00Z");
  if (start === null) throw new Error("the moment is none");
  const began = performance.now();
  for (let at = 0; at < ADDS; at += 1) addWorkingHours(later(start, at * 7 * MINUTE), at % 200, hours);
  const each = ((performance.now() - began) * 1_000) / ADDS;
  return {
    name: `adding working hours, ${ADDS.toLocaleString("en")} times`,
    unit: "µs",
    measured: each,
    floor: Number.NaN,
    floorName: "",
    ratio: Number.NaN,
    asked: `at most ${MOST_MICROSECONDS} µs`,
    holds: each <= MOST_MICROSECONDS,
  };
}
