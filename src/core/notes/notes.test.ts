import { describe, expect, it } from "vitest";
import { type MemberId, trustedId } from "../kernel/ids";
import { mentioned, mentionsIn } from "./mentions";
import { noteBlocks } from "./note-text";

const people = ["Tobias Lind", "Mara Lind", "Mara Quell", "Jon"].map((name) => ({
  id: trustedId<MemberId>(name),
  name,
}));

describe("whom a note names", () => {
  it.each<[string, string[]]>([
    ["@Tobias, please look", ["Tobias Lind"]],
    ["@tobias lind please", ["Tobias Lind"]],
    ["see @Mara Quell and @Tobias", ["Mara Quell", "Tobias Lind"]],
    ["@Mara is two people", []],
    ["@Jonas is not @Jon", ["Jon"]],
    ["(@Jon)", ["Jon"]],
    ["mail jon@jon or x.@Jon", []],
    ["@Jon and again @Jon", ["Jon"]],
    ["@nobody", []],
    ["nothing at all", []],
  ])("%s", (text, names) => expect(mentioned(text, people)).toEqual(names));

  it("and where", () => {
    expect(mentionsIn("ask @Mara Lind!", people)).toEqual([{ memberId: "Mara Lind", from: 4, to: 14 }]);
  });
});

describe("a note", () => {
  const shape = (text: string) => noteBlocks(text).map(({ kind, lines }) => [kind, ...lines.map((line) => line.text)]);
  it.each<[string, unknown]>([
    ["one\ntwo", [["lines", "one", "two"]]],
    [
      "one\n\ntwo",
      [
        ["lines", "one"],
        ["lines", "two"],
      ],
    ],
    [
      "to do:\n- pipes\n* bellows\nthen",
      [
        ["lines", "to do:"],
        ["list", "pipes", "bellows"],
        ["lines", "then"],
      ],
    ],
    [
      "- one\n\n- two",
      [
        ["list", "one"],
        ["list", "two"],
      ],
    ],
    ["-5 degrees", [["lines", "-5 degrees"]]],
    ["\n\n", []],
  ])("%j", (text, blocks) => expect(shape(text)).toEqual(blocks));

  it("knows where its lines begin", () => {
    const text = "first\n- @Jon asks";
    const [, list] = noteBlocks(text);
    expect(text.slice(list?.lines[0]?.from)).toBe("@Jon asks");
  });
});
