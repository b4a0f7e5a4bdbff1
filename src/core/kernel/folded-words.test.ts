import { describe, expect, it } from "vitest";
import { foldedWords, hasWords } from "./folded-words";

describe("words looked for in a text", () => {
  it.each([
    ["Die Räume, endlich!", "raume", true],
    ["Invoice 2031 for tin", "tin invoice", true],
    ["Continuous tuning", "tin", false],
    ["Σωλήνες από κασσίτερο", "σωληνες", true],
    ["anything", "  ", false],
    ["", "word", false],
  ])("%s has %s: %s", (text, words, has) => {
    expect(hasWords(foldedWords(text), words)).toBe(has);
  });
});
