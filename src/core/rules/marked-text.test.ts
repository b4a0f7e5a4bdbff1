import fc from "fast-check";
import { expect, it } from "vitest";
import type { TextMatch } from "./condition";
import { markedText } from "./marked-text";

const TEXT = "Été: the Tin order 42, tin whistle and tinder.";

it.each<[match: TextMatch, found: readonly string[]]>([
  [{ how: "words", values: ["ete tin"] }, ["Été", "Tin", "tin"]],
  [{ how: "words", values: ["tin pipe", "order"] }, ["order"]],
  [{ how: "phrase", values: ["tin whistle"] }, ["tin whistle"]],
  [{ how: "contains", values: ["tin"] }, ["Tin", "tin", "tin"]],
  [{ how: "contains", values: ["tin"], isExact: true }, ["tin", "tin"]],
  [{ how: "pattern", values: ["\\d+,? tin", "(", "x*"] }, ["42, tin"]],
  [{ how: "is", values: [TEXT.toUpperCase()] }, [TEXT]],
  [{ how: "like", values: ["*tin*"] }, [TEXT]],
])("%j is marked", (match, found) => {
  const pieces = markedText(TEXT, [match]);
  expect(pieces.filter(({ hit }) => hit).map(({ text }) => text)).toEqual(found);
});

it("marks once what several look for", () => {
  const matches: TextMatch[] = [
    { how: "phrase", values: ["tin order"] },
    { how: "words", values: ["order 42"] },
  ];
  expect(markedText("A tin order, 42", matches)).toEqual([
    { text: "A ", hit: false },
    { text: "tin order", hit: true },
    { text: ", ", hit: false },
    { text: "42", hit: true },
  ]);
});

it("loses nothing of a text", () => {
  const match = fc.record({
    how: fc.constantFrom("words", "phrase", "contains", "is"),
    values: fc.array(fc.string({ maxLength: 3 }), { maxLength: 3 }),
  });
  fc.assert(
    fc.property(fc.string({ unit: "grapheme" }), fc.array(match, { maxLength: 3 }), (text, matches) => {
      const pieces = markedText(text, matches);
      expect(pieces.map((piece) => piece.text).join("")).toBe(text);
    }),
  );
});
