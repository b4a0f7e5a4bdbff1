import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { divideText, firstWords } from "./own-text";

describe("a message's own text", () => {
  it.each<[string, string, string]>([
    ["is all of it when nothing is quoted", "One line.\n\nAnother.", "One line.\n\nAnother."],
    ["ends before the signature", "Yours, P.\n\n-- \nP. Vane\nOrganist", "Yours, P."],
    ["leaves quoted lines out", "Yes.\n\n> May we come?\n> Thank you", "Yes."],
    [
      "leaves the attribution out with its quotation",
      "Yes.\n\nOn Tue, 24 Nov 2026, Ines Varga wrote:\n> May we come?",
      "Yes.",
    ],
    [
      "knows an attribution that wraps",
      "Yes.\n\nOn Tue, 24 Nov 2026 at 10:14, Ines Varga\n<office@ottermoor.example>\nwrote:\n> May we come?",
      "Yes.",
    ],
    ["knows other languages", "Gern.\n\nAm 24. November 2026 um 10:14 schrieb Ines Varga:\n> Dürfen wir?", "Gern."],
    ["keeps answers between the questions", "> May we come?\nYes.\n> At ten?\nNo, at noon.", "Yes.\nNo, at noon."],
    ["ends at a divider", "See below.\n\n-----Original Message-----\nFrom: A\nHello", "See below."],
    [
      "ends at a block of header lines",
      "See below.\n\nFrom: Ines\nSent: Tuesday\nTo: Vane\nSubject: Visit\n\nHello",
      "See below.",
    ],
    ["ends at an attribution without marks", "Yes.\n\nOn 24 Nov 2026, Ines wrote:\n\nMay we come?", "Yes."],
    [
      "does not end at a sentence that begins with On",
      "On Tuesday it rained.\nWe wrote a letter.",
      "On Tuesday it rained.\nWe wrote a letter.",
    ],
    ["is nothing when all is quoted", "> one\n> two", ""],
  ])("%s", (_, text, own) => expect(divideText(text).own).toBe(own));

  it("loses no word: what is not own text is the rest", () => {
    const line = fc.constantFrom(
      "Yes.",
      "> quoted",
      "",
      "-- ",
      "On Monday, Ines wrote:",
      "From: a",
      "To: b",
      "Subject: c",
      "We came.",
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 14 }), (lines) => {
        const { own, rest } = divideText(lines.join("\n"));
        const words = (text: string) =>
          text
            .split(/\s+/)
            .filter((word) => word !== "")
            .toSorted();
        expect(words(`${own}\n${rest}`)).toEqual(words(lines.join("\n")));
      }),
    );
  });

  it("stays quick on long text that looks like an attribution", () => {
    const text = `On ${"a wrote ".repeat(20_000)}`;
    expect(divideText(text).own).toBe(text.trim());
  });

  it("is cut at a word for lists", () => {
    expect(firstWords("one\n two")).toBe("one two");
    expect(firstWords("bellows and leather ".repeat(20), 40)).toBe("bellows and leather bellows and leather…");
  });
});
