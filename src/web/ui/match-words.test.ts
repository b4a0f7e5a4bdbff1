import { expect, it } from "vitest";
import { entryValue, matchWords } from "./match-words";

it("what is typed is matched against the words of an entry, and never against its id", () => {
  const fits = (words: string, id: string, typed: string) => matchWords(entryValue(words, id), typed) > 0;
  expect(fits("Work through older mail", "page backlog", "older")).toBe(true);
  expect(fits("My colleagues’", "do theirs", "older")).toBe(false);
  expect(fits("Col Whitaker", "01dea", "dea")).toBe(false);
});

it("what begins with what is typed fits better than what has its letters somewhere", () => {
  const [begins, has] = ["Tobias Lund", "Stop: bin it"].map((words) => matchWords(entryValue(words, "1"), "tob"));
  expect(begins).toBeGreaterThan(has ?? 1);
});
