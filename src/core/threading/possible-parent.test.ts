import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import { possibleParent, possibleParentInWords } from "./possible-parent";

const asked = {
  subject: "Re: Metal for the new rank",
  ownText: "Dear Corvin,\nwhat would 200 kilograms cost, rolled to 1.2 mm? Kind regards",
  recordCodes: ["P-26-040"],
};
const message = { subject: "News from the smelter", ownText: "It is done.", restText: "" };

describe("a message that names none of ours in its fields", () => {
  it.each([
    [{}, null],
    [{ ownText: "Kind regards" }, null],
    [{ subject: "metal for the NEW rank, at last" }, "it names its subject"],
    [{ ownText: "You asked about metal for\nthe new rank." }, "it names its subject"],
    [{ subject: "Your P-26-040" }, "it names P-26-040"],
    [{ ownText: "for p-26-040: 40 a kilogram" }, "it names P-26-040"],
    [
      { restText: "> Dear Corvin,\n> what would 200 kilograms cost,\n> rolled to 1.2 mm?" },
      "it quotes “what would 200 kilograms cost, rolled to 1.2 mm?”",
    ],
  ])("with %j: %s", (part, words) => {
    const reason = possibleParent({ ...message, ...part }, asked);
    expect(inEnglish(reason === null ? null : possibleParentInWords(reason))).toBe(words);
  });

  it("is not found by a subject that everything may have", () => {
    expect(possibleParent({ ...message, ownText: "Tin." }, { ...asked, subject: "Tin", recordCodes: [] })).toBeNull();
  });
});
