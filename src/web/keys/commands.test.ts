import { describe, expect, it } from "vitest";
import { COMMAND_IDS, COMMANDS, commandsOfKey, conflictsOf, isGivableKey, keyCap, keyOf } from "./commands";

describe("the keys that commands come with", () => {
  it.each([
    ["j", ["down", "skip"]],
    ["Enter", ["open", "accept-all"]],
    ["a", ["assign"]],
    ["c", ["categories"]],
    ["f", ["file"]],
    ["w", ["expect"]],
    ["l", ["rest"]],
    ["d", ["follow-up"]],
    ["u", ["urgency"]],
    ["s", ["settle"]],
    ["b", ["bin"]],
    ["r", ["answer"]],
    ["n", ["note"]],
    ["z", ["undo"]],
    ["o", ["sort-run"]],
    ["/", ["search"]],
    [".", ["commands"]],
    ["?", ["keys"]],
    ["Shift+3", ["shelf-3"]],
    ["q", ["notifications"]],
    ["M", ["mine"]],
    ["%", []],
  ])("%s works %j", (key, ids) => expect(commandsOfKey(key, COMMAND_IDS, {})).toEqual(ids));

  it("have no conflict among themselves", () => {
    for (const id of COMMAND_IDS) expect([id, conflictsOf(id, COMMANDS[id].key, {})]).toEqual([id, []]);
  });
});

describe("a key that a member gave", () => {
  const chosen = { settle: "%" };
  it("works its command, and the old one does no more", () => {
    expect(keyOf("settle", chosen)).toBe("%");
    expect(commandsOfKey("%", COMMAND_IDS, chosen)).toEqual(["settle"]);
    expect(commandsOfKey("s", COMMAND_IDS, chosen)).toEqual([]);
  });
  it("is told where it works something else as well", () => {
    expect(conflictsOf("settle", "b", { settle: "b" })).toEqual(["bin"]);
    expect(conflictsOf("bin", "b", { settle: "b" })).toEqual(["settle"]);
  });
  it.each([
    ["%", true],
    ["Ü", true],
    ["Escape", true],
    ["Delete", true],
    [" ", false],
    ["F5", false],
    ["Tab", false],
    ["Shift", false],
  ])("may be %j: %s", (key, may) => expect(isGivableKey(key)).toBe(may));
  it.each([
    ["Escape", "Esc"],
    ["Enter", "↵"],
    ["x", "x"],
  ])("%s stands on its cap as %s", (key, cap) => expect(keyCap(key)).toBe(cap));
});
