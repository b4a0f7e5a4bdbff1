import { describe, expect, it } from "vitest";
import { HOUR, type Instant, later, readInstant } from "../kernel/instant";
import type { Mark } from "../turn-line/marks";
import { usualHours } from "../worktime/working-hours";
import { type AnswerTime, answersIn, chanceUntil, usualSpan, usualTime } from "./answer-times";

const hours = usualHours("Europe/London");
const at = (text: string): Instant => {
  const read = readInstant(text);
  if (read === null) throw new Error(text);
  return read;
};
// A Wednesday, at opening.
const morning = at("2026-11-25T08:00:00Z");
const took = (...spans: readonly number[]): AnswerTime[] =>
  spans.map((span) => ({ askedAt: morning, answeredAt: later(morning, span * HOUR) }));

describe("the answers in an exchange", () => {
  const marks = (text: string): Mark[] => [...text].map((kind, n): Mark => [n, kind as Mark[1]]);
  it.each([
    ["tw", []],
    ["wt", [[0, 1]]],
    ["wwt", [[1, 2]]],
    ["wtt", [[0, 1]]],
    ["wmbnt", [[0, 4]]],
    [
      "twtwt",
      [
        [1, 2],
        [3, 4],
      ],
    ],
    ["", []],
  ])("%s", (text, pairs) => {
    expect(answersIn(marks(text)).map(({ askedAt, answeredAt }) => [askedAt, answeredAt])).toEqual(pairs);
  });
});

describe("how long somebody takes", () => {
  it("is known from five answers on, in working time", () => {
    expect(usualTime(took(1, 2, 3, 4), hours)).toBeNull();
    // A day later is nine working hours later.
    expect(usualTime(took(3, 1, 2, 4, 24), hours)).toEqual({
      count: 5,
      median: 3 * HOUR,
      ninetieth: 9 * HOUR,
      times: [1, 2, 3, 4, 9].map((span) => span * HOUR),
    });
  });

  it("is a stretch after each message, over nights", () => {
    const usual = usualTime(took(2, 2, 2, 2, 24), hours);
    expect(usual === null ? null : usualSpan(at("2026-11-25T16:00:00Z"), usual, hours)).toEqual({
      from: at("2026-11-26T09:00:00Z"),
      to: at("2026-11-26T16:00:00Z"),
    });
  });

  it("says how likely it is that an answer still comes", () => {
    const usual = usualTime(took(1, 2, 3, 4, 5), hours);
    if (usual === null) throw new Error("five are enough");
    const chance = (now: number, until: number) =>
      chanceUntil(usual, morning, { now: later(morning, now * HOUR), until: later(morning, until * HOUR) }, hours);
    expect([chance(0, 5), chance(0, 2), chance(2.5, 4), chance(5, 9)]).toEqual([5 / 6, 2 / 6, 2 / 4, null]);
  });
});
