import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DAY, HOUR } from "../kernel/instant";
import { drawTurnLine, type TurnLineFacts, turnLineX } from "./draw-turn-line";

const NOW = 1_000 * DAY;
const line = (facts: Partial<TurnLineFacts>) =>
  drawTurnLine(
    { marks: [], turn: "nobody", turnSince: null, standing: "our-move", expectedAt: null, now: NOW, ...facts },
    140,
  );

describe("the turn line", () => {
  it("keeps the order of time, and everything on the line", () => {
    fc.assert(
      fc.property(fc.integer({ min: -900, max: 60 }), fc.integer({ min: -900, max: 60 }), (a, b) => {
        const [earlier, later] = [Math.min(a, b), Math.max(a, b)].map((days) => turnLineX(NOW + days * DAY, NOW, 140));
        expect(earlier).toBeGreaterThanOrEqual(0);
        expect(later).toBeLessThanOrEqual(140);
        expect(earlier).toBeLessThanOrEqual(later ?? Number.NaN);
      }),
    );
  });

  it("gives the last day more room than the week before it", () => {
    const x = (ago: number) => turnLineX(NOW - ago, NOW, 140);
    expect(x(0) - x(DAY)).toBeGreaterThan(x(DAY) - x(8 * DAY));
  });

  it("runs solid from the last real message to now when it is our move", () => {
    const { spans, caret } = line({
      marks: [
        [NOW - 3 * DAY, "t"],
        [NOW - DAY, "m"],
      ],
      standing: "our-move",
    });
    expect(spans).toHaveLength(1);
    expect(spans[0]).toMatchObject({
      whose: "us",
      over: false,
      to: 112,
      from: Math.round(turnLineX(NOW - 3 * DAY, NOW, 140) * 10) / 10,
    });
    expect(caret).toBeNull();
  });

  it("thickens beyond the expected day, and marks that day", () => {
    const { spans, caret } = line({ marks: [[NOW - 9 * DAY, "w"]], standing: "waiting", expectedAt: NOW - 2 * DAY });
    expect(spans.map(({ whose, over }) => [whose, over])).toEqual([
      ["them", false],
      ["them", true],
    ]);
    expect(spans[0]?.to).toBe(spans[1]?.from);
    expect(caret).toBe(spans[1]?.from);
  });

  it("has no open span once settled", () => {
    expect(line({ marks: [[NOW - DAY, "t"]], standing: "settled", turn: "us" }).spans).toEqual([]);
  });

  it("says the same in a sentence", () => {
    const marks = [
      [NOW - 9 * DAY, "t"],
      [NOW - 8 * DAY, "w"],
      [NOW - 8 * DAY, "m"],
      [NOW - DAY, "n"],
    ] as const;
    const facts = {
      marks,
      standing: "waiting",
      turn: "them",
      turnSince: NOW - 8 * DAY,
      expectedAt: NOW - HOUR,
    } as const;
    expect(inEnglish(line(facts).sentence)).toBe(
      "1 from them, 1 from us, 1 automatic or bounced, 1 internal; with them for 8 days, overdue",
    );
    expect(inEnglish(line({ marks: [[NOW, "t"]], standing: "settled" }).sentence)).toBe("1 from them; nothing open");
  });
});
