import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { brokenRuns } from "./broken-runs";

describe("a text in pieces", () => {
  it.each([
    ["", 4, [""]],
    ["a bc def", 4, ["a bc def"]],
    ["abcdefghij", 4, ["abcd", "efgh", "ij"]],
    ["abcd", 4, ["abcd"]],
    ["abc\ndefgh i", 4, ["abc\ndefg", "h i"]],
  ])("%j by %i is %j", (text, most, pieces) => expect(brokenRuns(text, most)).toEqual(pieces));

  it("is the text again, and has no longer run, nor half a character", () =>
    fc.assert(
      fc.property(fc.string({ unit: "grapheme", maxLength: 300 }), fc.integer({ min: 2, max: 20 }), (text, most) => {
        const pieces = brokenRuns(text, most);
        expect(pieces.join("")).toBe(text);
        for (const piece of pieces) {
          for (const run of piece.split(/[\0- ]/)) expect(run.length).toBeLessThanOrEqual(most + 1);
          expect(piece.isWellFormed()).toBe(text.isWellFormed());
        }
      }),
    ));
});
