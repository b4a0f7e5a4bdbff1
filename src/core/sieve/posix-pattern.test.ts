import { describe, expect, it } from "vitest";
import { patternFromPosix, patternInPosix } from "./posix-pattern";

describe("an extended regular expression", () => {
  it.each([
    ["^t[io]n$", "^t[io]n$"],
    ["[[:alpha:]]{2}", "[[:alpha:]]{2}"],
    ["\\<tin\\>", "\\btin\\b"],
    ["[]x]", "[]x]"],
    ["[\\.]", "[\\\\.]"],
    ["[\\w.]", "[\\w.]"],
    ["a\\.b", "a\\.b"],
  ])("%s is %s for RE2", (posix, pattern) => {
    expect(patternFromPosix(posix)).toEqual({ pattern });
  });

  it.each([
    ["(a)\\1", "\\1"],
    ["[[.hyphen.]]", "[[.hyphen.]]"],
    ["[abc", "[abc"],
  ])("%s has no counterpart", (posix, lacks) => {
    expect(patternFromPosix(posix)).toEqual({ lacks });
  });
});

describe("a pattern of RE2", () => {
  it.each([
    ["(?:tin|pipe)+", "(tin|pipe)+"],
    ["\\d{2,3}?x*?", "[0-9]{2,3}x*"],
    ["\\D\\s", "[^0-9][[:space:]]"],
    ["[\\w.-]", "[[:alnum:]_.-]"],
    ["[\\]\\-^a]", "[]a^-]"],
    ["[^\\d\\]]", "[^]0-9]"],
    ["(?s)a.b", "a.b"],
    ["a\\.b", "a\\.b"],
  ])("%s is %s for a mail server", (pattern, posix) => {
    expect(patternInPosix(pattern)).toEqual({ pattern: posix });
  });

  it.each([
    ["a\\b", "\\b"],
    ["(?i)a", "(?i)"],
    ["\\p{L}", "\\p"],
    ["[\\pL]", "[\\pL]"],
    ["[\\^]", "[\\^]"],
  ])("%s has no counterpart", (pattern, lacks) => {
    expect(patternInPosix(pattern)).toEqual({ lacks });
  });
});
