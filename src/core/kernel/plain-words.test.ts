import { describe, expect, it } from "vitest";
import { hasWords, plainWords } from "./plain-words";

describe("words looked for in a text", () => {
  it.each([
    ["Die Räume, endlich!", "raume", true],
    ["Invoice 2031 for tin", "tin invoice", true],
    ["Continuous tuning", "tin", false],
    ["Σωλήνες από κασσίτερο", "σωληνες", true],
    ["anything", "  ", false],
    ["", "word", false],
  ])("%s has %s: %s", (text, words, has) => {
    expect(hasWords(plainWords(text), words)).toBe(has);
  });
});
