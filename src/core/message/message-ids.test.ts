import { describe, expect, it } from "vitest";
import { MAX_REFERENCES, readMessageIds, referencesForReply } from "./message-ids";

describe("message ids", () => {
  it.each<[string, string[]]>([
    ["<a@x> <b@x>", ["a@x", "b@x"]],
    ["<a@x><a@x>", ["a@x"]],
    ["Your letter of Tuesday <a@x>", ["a@x"]],
    ["a@x", ["a@x"]],
    ["no id at all", []],
    ["<a\r\n @x>", ["a@x"]],
    ["<>", []],
    [`<${"a".repeat(600)}@x>`, []],
  ])("are read from %j", (field, ids) => expect(readMessageIds(field)).toEqual(ids));

  it("keep the nearest parents of an endless chain", () => {
    const field = Array.from({ length: MAX_REFERENCES + 50 }, (_, at) => `<${at}@x>`).join(" ");
    const ids = readMessageIds(field);
    expect([ids.length, ids.at(-1)]).toEqual([MAX_REFERENCES, `${MAX_REFERENCES + 49}@x`]);
  });

  it("continue in an answer: the parent's chain, then the parent", () => {
    expect(referencesForReply({ messageId: "c", inReplyTo: ["b"], references: ["a", "b"] })).toEqual(["a", "b", "c"]);
    expect(referencesForReply({ messageId: "c", inReplyTo: ["b"], references: [] })).toEqual(["b", "c"]);
    expect(referencesForReply({ messageId: null, inReplyTo: [], references: ["a"] })).toEqual(["a"]);
  });

  it("keep the first and the newest when there are too many", () => {
    expect(referencesForReply({ messageId: "e", inReplyTo: [], references: ["a", "b", "c", "d"] }, 3)).toEqual([
      "a",
      "d",
      "e",
    ]);
  });
});
