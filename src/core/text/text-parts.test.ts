import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { textPart } from "./text-parts";

describe("a part of a long text", () => {
  it.each([
    ["short", 10, { text: "short", left: 0 }],
    ["one two three", 8, { text: "one two ", left: 5 }],
    ["one two\nthree four", 12, { text: "one two\n", left: 10 }],
    ["abcdefghij", 4, { text: "abcd", left: 6 }],
  ])("of %j by %i", (text, most, part) => expect(textPart(text, 0, most)).toEqual(part));

  it("after the other they are the text, and none is longer than it may be", () =>
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 200 }), fc.integer({ min: 4, max: 40 }), (text, most) => {
        let whole = "";
        for (let left = text.length; left > 0; ) {
          const part = textPart(text, whole.length, most);
          expect(part.text.length).toBeGreaterThan(0);
          expect(part.text.length).toBeLessThanOrEqual(most);
          expect(part.text.isWellFormed()).toBe(true);
          whole += part.text;
          left = part.left;
        }
        expect(whole).toBe(text);
      }),
    ));
});
