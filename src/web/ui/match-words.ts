import { defaultFilter } from "cmdk";

const END = "\u0001";

/** What tells an entry of a list apart: its words, which are what typing is matched against, and after them its id, which is not. */
export function entryValue(words: string, id: string): string {
  return words + END + id;
}

/** How well the words of an entry fit what is typed, from 0 to 1. */
export function matchWords(value: string, typed: string): number {
  return defaultFilter(value.split(END)[0] ?? "", typed);
}
