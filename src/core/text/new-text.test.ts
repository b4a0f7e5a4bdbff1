import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { divideText, firstWords, wordsToShow } from "./new-text";

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
    [
      "keeps what stands on the attribution's line",
      "Yes, gladly. On Tue, 24 Nov 2026 at 10:14, Ines Varga <office@ottermoor.example> wrote:\n> May we come?",
      "Yes, gladly.",
    ],
    [
      "keeps it where the attribution wraps",
      "Thanks! On Tue, 24 Nov 2026 at 10:14, Ines Varga\n<office@ottermoor.example> wrote:\n\nMay we come?",
      "Thanks!",
    ],
    ["keeps it before a name", "We are in. Ines Varga <office@ottermoor.example> wrote:\n> May we come?", "We are in."],
    [
      "keeps it when all is on one line",
      "Tuesday it is. Am 24.11.2026 um 10:14 schrieb Ines Varga <office@ottermoor.example>: > Dürfen wir?",
      "Tuesday it is.",
    ],
    ["takes no title for a reply", "Good.\n\nDr. Otto Quayle <otto@quayle.example> wrote:\n> May we come?", "Good."],
    [
      "is nothing of a bare forward",
      "From: Otto Quayle <otto@quayle.example>\nSent: Monday, 23 November 2026 10:14\nTo: Ines Varga\nSubject: Blower\n\nIt hums.",
      "",
    ],
    [
      "is all that a form wrote",
      "Name: Hester Quill\nDate: 24 November\nSubject: Tuning\nTo: the office\nFrom: Ludd\n\nPlease come.",
      "Name: Hester Quill\nDate: 24 November\nSubject: Tuning\nTo: the office\nFrom: Ludd\n\nPlease come.",
    ],
    [
      "is all that a form wrote below an introduction",
      "Somebody wrote to us:\n\nFrom: Hester\nDate: today\nSubject: Tuning\nPhone: 12 34\nMessage: please come.",
      "Somebody wrote to us:\n\nFrom: Hester\nDate: today\nSubject: Tuning\nPhone: 12 34\nMessage: please come.",
    ],
    [
      "goes on below a forwarded message that ends",
      "See:\n\n---- Forwarded message ----\nFrom: a@b.example\n\nIt hums.\n---- End of forwarded message ----\n\nShall we?",
      "See:\n\nShall we?",
    ],
    [
      "goes on between the lines below copied header lines",
      "-----Original Message-----\nFrom: Ines\nSent: Tuesday\nTo: Vane\nSubject: Visit\n\n> May we come?\nYes.",
      "Yes.",
    ],
    [
      "is what stands below an attribution without marks when nothing stands above",
      "On 24 Nov 2026 at 10:14, Ines wrote:\n\nMay we come?\n\nYes.",
      "May we come?\n\nYes.",
    ],
    [
      "goes on below a sentence that ends like an attribution",
      "As Perpetua wrote in May 2026:\n\nThe bellows leak.",
      "As Perpetua wrote in May 2026:\n\nThe bellows leak.",
    ],
    [
      "goes on below a rule between the parts of a letter",
      "The bellows first.\n\n***\n\nNow to the invoice, which has not come yet.",
      "The bellows first.\n\n***\n\nNow to the invoice, which has not come yet.",
    ],
    [
      "goes on below a rule as wide as the page",
      `One.\n${"-".repeat(60)}\nTwo, and more.`,
      `One.\n${"-".repeat(60)}\nTwo, and more.`,
    ],
    [
      "goes on below a sentence that begins like a program's line",
      "Written by the clerk in 1904.\nIt says that the bells came later.",
      "Written by the clerk in 1904.\nIt says that the bells came later.",
    ],
    [
      "has the postscript below a signature",
      "Yours\n\n-- \nP. Vane\n\nP.S. The key is with Ludd.",
      "Yours\n\nP.S. The key is with Ludd.",
    ],
    [
      "has the answers below a signature and its quotation",
      "-- \nP. Vane\n\nOn 24 Nov 2026, Ines wrote:\n> May we come?\nYes.",
      "Yes.",
    ],
    [
      "knows a line that a mailbox has marked",
      "See below.\n\n>From the loft one sees it.",
      "See below.\n\n>From the loft one sees it.",
    ],
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
      "Gladly. On 24 Nov 2026, Ines <i@o.example> wrote:",
      "---- End of forwarded message ----",
      "P.S. We came.",
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

  it.each([
    ["rules", `${"_".repeat(40)}\nx\n`],
    ["lines that programs add", "Sent from my telephone\n"],
    ["double dashes", "--\n\n"],
    ["attributions", "On 24 Nov 2026, Ines wrote:\n"],
    ["dividers", "---- Forwarded message ----\n---- End of forwarded message ----\n"],
    ["header lines", "From: a\nDate: b\nSubject: c\n> d\n"],
  ])(
    "stays quick on %s without end",
    (_, piece) => {
      const text = piece.repeat(50_000);
      const { own, rest } = divideText(text);
      expect(own.length + rest.length).toBeGreaterThan(text.length / 2);
    },
    3_000,
  );

  it("takes header lines at the top for those of another message where the subject says that it is passed on", () => {
    const text = "From: Otto\nDate: Monday\nSubject: Blower\n\nIt hums.";
    expect([divideText(text).own, divideText(text, true).own]).toEqual([text, ""]);
  });

  it.each([
    ["its own words", "Yes.\n\n> May we?", "Yes."],
    [
      "what it passes on",
      "---- Forwarded message ----\nFrom: Otto <o@q.example>\nDate: Monday\nTo: us\nSubject: Blower\n\nIt hums.",
      "It hums.",
    ],
    ["the quotation when there is nothing else", "> May we?", "> May we?"],
  ])("shows in a list %s", (_, text, words) => expect(wordsToShow(divideText(text))).toBe(words));

  it("is cut at a word for lists", () => {
    expect(firstWords("one\n two")).toBe("one two");
    expect(firstWords("bellows and leather ".repeat(20), 40)).toBe("bellows and leather bellows and leather…");
  });
});
