import { expect, it } from "vitest";
import { hasEvery, hitsIn, readQuery, searchWords } from "./query";

const told = (text: string) =>
  readQuery(text).terms.map((term) =>
    term.kind === "phrase" ? term.words.join("+") : term.kind === "beginning" ? `${term.text}*` : term.text,
  );

it.each<[string, string[]]>([
  ["", []],
  ["  ", []],
  ["bello", ["bello*"]],
  ["bellows ", ["bellows"]],
  ["Swell box", ["swell", "box*"]],
  ['"swell box"', ["swell+box"]],
  ['"swell box', ["swell+box"]],
  ['"swell"', ["swell"]],
  ["p-26-012", ["p", "26", "012*"]],
  ["Grüße", ["gruße*"]],
  ["' & | ! :*", []],
])("reads %j", (text, terms) => expect(told(text)).toEqual(terms));

it("reads no more than a person types", () => expect(readQuery("word ".repeat(50)).terms).toHaveLength(12));

it("keeps words as the index has them", () =>
  expect(searchWords("Ínes' organ, No. 5")).toEqual(["ines", "organ", "no", "5"]));

it("marks every hit in the text as it is written", () => {
  const text = "The Bellows, and the bellows' leather.";
  expect(hitsIn(text, readQuery("bellow")).map(([from, to]) => text.slice(from, to))).toEqual(["Bellows", "bellows"]);
  expect(hitsIn(text, readQuery("bellow "))).toEqual([]);
});

it.each<[string, boolean]>([
  ["bellows leather ", true],
  ["leath", true],
  ["leath ", false],
  ['"and the bellows"', true],
  ['"the leather"', false],
  ["bellows console ", false],
  ["", true],
])("asks for every term of %j", (text, has) =>
  expect(hasEvery("The Bellows, and the bellows' leather.", readQuery(text))).toBe(has),
);
