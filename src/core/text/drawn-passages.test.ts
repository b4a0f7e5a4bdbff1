import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnPassages } from "./drawn-passages";

describe("what is drawn with characters", () => {
  it.each([
    ["a ruled table", "+---+----+\n| C | 12 |\n| D | 13 |\n+---+----+"],
    ["columns", "Pipe   Length   Cut-up\nC      2438     1/4\nc      1219     1/4"],
    ["a table of box characters", "┌───┬───┐\n│ C │ 1 │\n└───┴───┘"],
  ])("is %s", (_, table) => {
    const found = drawnPassages(`Good evening,\n\nthe measures:\n\n${table}\n\nOtto`);
    expect(found.filter(({ isDrawn }) => isDrawn).map(({ text }) => text.trimEnd())).toEqual([table]);
  });

  it.each([
    "Two lines | with a bar\nand another | one",
    "A letter.\n\nWith paragraphs.\nAnd + signs + in it.\nNot drawn.",
  ])("is not prose: %j", (text) => expect(drawnPassages(text)).toEqual([{ text, isDrawn: false }]));

  it("leaves the text as it is", () => {
    const line = fc.constantFrom("| a | b |", "+---+", "prose", "", "  ", "a   b   c");
    fc.assert(
      fc.property(fc.array(line), (lines) => {
        const text = lines.join("\n");
        expect(
          drawnPassages(text)
            .map((passage) => passage.text)
            .join(""),
        ).toBe(text);
      }),
    );
  });
});
