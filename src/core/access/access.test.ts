import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { passwordProblem } from "./password";
import { signInDelay } from "./sign-in-delay";

describe("a password that is chosen", () => {
  const common = new Set(["password123", "qwertyuiop"]);
  it.each([
    ["bellows and reeds", null],
    ["größe der Pfeifen", null],
    [" ".repeat(40), "spaces alone"],
    ["short", "At least 10"],
    ["    short     ", "At least 10"],
    ["a".repeat(1_001), "At most 1,000"],
    ["Password123", "first that are tried"],
    ["QWERTYUIOP", "first that are tried"],
    ["1111111111111", "first that are tried"],
    ["abababababab", "first that are tried"],
    ["ines.varga.2026", "Your own name"],
    ["InesVarga11", "Your own name"],
  ])("%j", (password, words) => {
    const problem = passwordProblem(password, ["ines", "InesVarga"], common);
    if (words === null) expect(problem).toBeNull();
    else expect(inEnglish(problem)).toContain(words);
  });
});

describe("the next try to sign in", () => {
  it.each([
    [0, 0, 0],
    [4, 9, 0],
    [5, 0, 250],
    [6, 0, 500],
    [8, 0, 2_000],
    [1_000_000, 0, 5_000],
    [0, 10, 250],
    [0, 16, 16_000],
    [0, 1_000_000, 30_000],
    [1_000_000, 12, 5_000],
  ])("after %i failures of the name and %i of the address waits %i ms", (ofName, ofAddress, ms) =>
    expect(signInDelay({ ofName, ofAddress })).toBe(ms),
  );
});
