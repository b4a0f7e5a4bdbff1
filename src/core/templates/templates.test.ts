import { inEnglish } from "@tests/support/english";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { instant } from "../kernel/instant";
import { usualHours } from "../worktime/working-hours";
import { checkTemplate } from "./check-template";
import { filledHtml, filledSubject, fillingsIn } from "./fill-template";
import type { Known } from "./known";
import { placesIn } from "./places";
import type { Template } from "./template";
import { unfilledBlanks, withoutPassages } from "./unfilled";

// A Thursday noon.
const using = { now: instant(Date.UTC(2026, 10, 26, 12)), hours: usualHours("Europe/Berlin"), language: "en" };
const known: Known = {
  theirName: "Leocadia Thrane",
  theirOrganisation: "",
  theyWroteAt: instant(Date.UTC(2026, 10, 24, 23, 30)),
  recordCode: "P-26-012",
  recordTitle: "Sorrel & sons",
  owner: "",
  myName: "Ines Varga",
  trayName: "Ottermoor Organ Works",
};
const blank = (kind: string, label: string, more = "") => `<span data-blank="${kind}"${more}>${label}</span>`;

describe("the places of a text", () => {
  it("are read wherever they stand, with what belongs into them", () => {
    const html = `<p>On ${blank("date", "which <b>day</b>?")} in ${blank("choice", "where?", ' data-choices="north | south|north"')}</p>`;
    const { blanks } = placesIn(html);
    expect(blanks.map((place) => place.blank)).toEqual([
      { kind: "date", label: "which day?" },
      { kind: "choice", label: "where?", choices: ["north", "south"] },
    ]);
    expect(blanks.map(({ start, end }) => html.slice(start, end))).toEqual([
      blank("date", "which <b>day</b>?"),
      blank("choice", "where?", ' data-choices="north | south|north"'),
    ]);
  });

  it("ask for a text where they cannot be read as they were meant", () => {
    const html = blank("choice", "a") + blank("moon", "b") + blank("in-days", "c", ' data-days="0"');
    expect(placesIn(html).blanks.map((place) => place.blank)).toEqual([
      { kind: "text", label: "a" },
      { kind: "text", label: "b" },
      { kind: "date", label: "c" },
    ]);
  });

  it("are one where a blank stands in another, and end with the text where they are not closed", () => {
    const html = `<p>${blank("text", `a ${blank("text", "b")}`)}<span data-blank="text">rest`;
    expect(placesIn(html).blanks.map((place) => place.blank.label)).toEqual(["a b", "rest"]);
    expect(placesIn(html).blanks.at(-1)?.end).toBe(html.length);
  });

  it("are found at any depth without running out of room", () => {
    const deep = 50_000;
    const html = `${"<div>".repeat(deep)}${blank("text", "x")}${"</div>".repeat(deep)}`;
    expect(placesIn(html).blanks).toHaveLength(1);
  });
});

describe("a template that is used", () => {
  it("is filled with what is known; the rest is left to be asked", () => {
    const html = `<p>${blank("greeting", "greeting")},</p><p>your letter of ${blank("their-day", "day")} about ${blank("record-title", "title")}: ${blank("owner", "owner")} comes ${blank("date", "when?")}. ${blank("my-name", "me")}</p>`;
    expect(filledHtml(html, known, using)).toBe(
      `<p>Dear Leocadia Thrane,</p><p>your letter of Wednesday 25 November about Sorrel &amp; sons: ${blank("text", "owner")} comes ${blank("date", "when?")}. Ines Varga</p>`,
    );
  });

  it.each([
    ["in-days", 5, "Tuesday 1 December"],
    ["in-working-days", 5, "Thursday 3 December"],
    ["in-working-days", 1, "Friday 27 November"],
  ])("computes a date %s %i", (kind, days, day) => {
    expect(filledHtml(blank(kind, "by", ` data-days="${days}"`), known, using)).toBe(day);
  });

  it("writes dates and greetings in its language", () => {
    const html = `${blank("greeting", "g")} ${blank("today", "t")}`;
    expect(filledHtml(html, known, { ...using, language: "de" })).toBe(
      "Guten Tag Leocadia Thrane Donnerstag, 26. November",
    );
    expect(filledHtml(html, { ...known, theirName: " " }, using)).toBe("Good day Thursday 26 November");
  });

  it("fills what its subject names in brackets, and leaves what is no name", () => {
    const subject = "Visit to [record-title] [Record-Code] [sic] [owner]";
    expect(filledSubject(subject, known, using)).toBe("Visit to Sorrel & sons P-26-012 [sic] [owner]");
    expect(fillingsIn(subject)).toEqual(["record-title", "record-code", "owner"]);
  });

  it("keeps every other character as it is, and what it fills in is never markup", () => {
    const plain = fc.stringMatching(/^[a-z &;éß.-]{0,20}$/);
    const piece = fc.oneof(
      plain.map((text) => ({ html: `<p>${text}</p>`, filled: `<p>${text}</p>` })),
      fc.constant({ html: blank("their-name", "n"), filled: "NAME" }),
      fc.constant({ html: blank("number", "how many?"), filled: blank("number", "how many?") }),
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), fc.string({ minLength: 1 }), (pieces, name) => {
        const html = pieces.map((one) => one.html).join("");
        const filled = filledHtml(html, { ...known, theirName: name }, using);
        const safe = name
          .replaceAll("&", "&amp;")
          .replaceAll("<", "&lt;")
          .replaceAll(">", "&gt;")
          .replaceAll('"', "&quot;");
        expect(filled).toBe(
          pieces
            .map((one) => one.filled)
            .join("")
            .replaceAll("NAME", () => safe),
        );
      }),
    );
  });
});

describe("a message", () => {
  const passage = `<div data-passage="Is it on the scaffold?"><p>Mind the ${blank("text", "which?")} plank.</p></div>`;

  it("goes only when each of its blanks is filled; those of a passage that is left out do not count", () => {
    expect(unfilledBlanks(`<p>${blank("number", "how many?")}</p>${passage}`).map(({ label }) => label)).toEqual([
      "how many?",
    ]);
    expect(unfilledBlanks(`<p>Three.</p>${passage}`)).toEqual([]);
  });

  it("goes without the passages that nobody took in, also one in another", () => {
    const inner = passage.replace("</p></div>", `</p>${passage}</div>`);
    expect(withoutPassages(`<p>a</p>${inner}<p>b</p>${passage}`)).toBe("<p>a</p><p>b</p>");
  });
});

describe("a template is refused", () => {
  const good: Omit<Template, "id" | "version"> = {
    trayId: null,
    memberId: null,
    name: "Appointment",
    folder: "Visits",
    key: "visit",
    language: "en",
    description: "",
    subject: "",
    html: "<p>We come.</p>",
    habits: {},
  };
  const others = [{ name: "Offer", folder: "Visits", key: "offer" }];
  const problems = (changed: Partial<typeof good>) =>
    Object.entries(checkTemplate({ ...good, ...changed }, others)).map(([field, said]) => [field, inEnglish(said)]);

  it.each<[Partial<typeof good>, string, string]>([
    [{ name: " " }, "name", "Give it a name."],
    [{ name: "OFFER" }, "name", "Another template here has that name."],
    [{ name: "x".repeat(81) }, "name", "At most 80 characters."],
    [{ folder: "a/b/c/d/e/f" }, "folder", "At most 5 folders, one in the other."],
    [{ key: "two words" }, "key", "A key is one word of letters and digits, at most 20."],
    [{ key: "Offer" }, "key", "That is the key of “Offer”."],
    [{ language: "xx" }, "language", "Choose a language."],
    [{ subject: "a\nb" }, "subject", "A subject is one line."],
    [{ html: "<p> &nbsp;</p>" }, "html", "Write the text."],
    [{ html: blank("text", " ") }, "html", "Say what belongs into each blank."],
    [{ html: blank("choice", "which?", ' data-choices="one"') }, "html", "A choice needs two answers or more."],
    [{ html: '<div data-passage=""><p>x</p></div>' }, "html", "Say when the passage belongs into the letter."],
    [{ habits: { expectDays: 0 } }, "expectDays", "Enter a number of days from 1 to 365."],
    [{ habits: { followUp: { days: 3, text: "" } } }, "followUp", "Say what is to be followed up."],
  ])("%j", (changed, field, problem) => {
    expect(problems(changed)).toEqual([[field, problem]]);
  });

  it("but not one that is as it should be, nor one of another folder", () => {
    expect(problems({})).toEqual([]);
    expect(problems({ name: "Offer", folder: "Money" })).toEqual([]);
  });
});
