import { describe, expect, it } from "vitest";
import { catalogue } from "./catalogue";
import { eachOnce, saidOf } from "./said";
import { languageOf, type Say, sayIn } from "./say";

const tryTexts = catalogue({
  "try.plain": "Nothing rests",
  "try.named": "Assign to {name}",
  "try.counted": "{count, plural, =0 {nothing} one {1 conversation} other {# conversations}} of {name}",
  "try.chosen": "End {whose, select, own {it} other {{name}}}",
  "try.braces": "P-'{'yy'}'",
  "try.figures": "{count, number} of {total, number}",
  "try.dated": "on {day, date, ::dMMM}",
  "try.broken": "{count, plural, one {1}",
});
const say = (locale: string) => sayIn(locale) as Say<typeof tryTexts>;

describe("a message", () => {
  it("is said by its key, with its values", () => {
    const english = say("en");
    expect(english("try.plain")).toBe("Nothing rests");
    expect(english("try.named", { name: "Ines Varga" })).toBe("Assign to Ines Varga");
    expect(english("try.braces")).toBe("P-{yy}");
  });

  it("has the plural of its number, with the signs between thousands", () => {
    const count = (n: number) => say("en")("try.counted", { count: n, name: "all" });
    expect([0, 1, 2, 12_840].map(count)).toEqual([
      "nothing of all",
      "1 conversation of all",
      "2 conversations of all",
      "12,840 conversations of all",
    ]);
    expect(say("en")("try.figures", { count: 3, total: 1_000_000 })).toBe("3 of 1,000,000");
  });

  it("chooses words by a value, and says days as they are written there", () => {
    expect(say("en")("try.chosen", { whose: "own", name: "Col" })).toBe("End it");
    expect(say("en")("try.chosen", { whose: "other", name: "Col" })).toBe("End Col");
    expect(say("en")("try.dated", { day: new Date(2026, 10, 30, 12) })).toBe("on 30 Nov");
  });

  it("that is broken is shown as it was written, and one that nobody wrote by its key", () => {
    expect(say("en")("try.broken" as "try.plain")).toBe("{count, plural, one {1}");
    expect(say("en")("try.nowhere" as "try.plain")).toBe("try.nowhere");
  });

  it("is what the build has put in the place of its key", () => {
    const inPlace = sayIn("en") as unknown as (message: unknown, values?: object) => string;
    expect(inPlace("Assign to {name}", { name: "Col" })).toBe("Assign to Col");
    const parsed = [
      { type: 0, value: "Undo " },
      { type: 1, value: "what" },
    ];
    expect(inPlace(parsed, { what: "it" })).toBe("Undo it");
  });
});

describe("what the core has put together to be said", () => {
  const said = saidOf(tryTexts);
  const english = say("en");
  const at = Date.UTC(2026, 10, 30, 22, 5);

  it("is said with what is in it, however deep", () => {
    const inner = said("try.counted", { count: 2, name: "all" });
    expect(english(said("try.plain"))).toBe("Nothing rests");
    expect(english(said("try.named", { name: inner }))).toBe("Assign to 2 conversations of all");
    expect(english(said("try.chosen", { whose: "other", name: said("try.plain") }))).toBe("End Nothing rests");
    expect(english("try.named", { name: inner })).toBe("Assign to 2 conversations of all");
  });

  it.each([
    ["time", "23:05"],
    ["weekday", "Mon"],
    ["day", "30 Nov"],
    ["day-of-year", "30 Nov 2026"],
    ["day-in-full", "30 November 2026"],
    ["month", "November"],
    ["month-of-year", "November 2026"],
    ["short-month", "Nov 26"],
  ] as const)("has the %s of a moment as its time zone has it", (form, words) => {
    expect(english({ at, zone: "Europe/Berlin", form })).toBe(words);
  });

  it("has several things as the language lists them, and figures as it writes them", () => {
    const all = ["Col", said("try.plain"), 3];
    expect(english({ all, by: "and" })).toBe("Col, Nothing rests and 3");
    expect(english({ all: ["Col", "Ines"], by: "or" })).toBe("Col or Ines");
    expect(english({ all, by: "comma" })).toBe("Col, Nothing rests, 3");
    expect(english({ all: ["Col"], by: "and" })).toBe("Col");
    expect(english({ figure: 12_840 })).toBe("12,840");
  });

  it("is said in the language that is asked, its names as they are", () => {
    expect(say("en-XA")(said("try.named", { name: { all: ["Col", said("try.plain")], by: "and" } }))).toMatch(
      /^\P{ASCII}+ \P{ASCII}+ Col and \P{ASCII}+ \P{ASCII}+$/u,
    );
  });

  it("is said once where it would be said alike", () => {
    const all = [said("try.plain"), said("try.named", { name: "Col" }), said("try.plain")];
    expect(eachOnce(all)).toEqual(all.slice(0, 2));
  });
});

describe("a language that nobody speaks", () => {
  it("has an accent on each letter of the text, is longer, and leaves values as they are", () => {
    expect(say("en-XA")("try.plain")).toBe("Ñóóţħííñĝ ŕééšţš");
    expect(say("en-XA")("try.named", { name: "Ines Varga" })).toBe("ÅÅššííĝñ ţóó Ines Varga");
    expect(say("en-XA")("try.counted", { count: 2, name: "all" })).toMatch(/^2 \P{ASCII}+ \P{ASCII}+ all$/u);
    expect(say("en-XA")("try.chosen", { whose: "other", name: "Col" })).toMatch(/^\P{ASCII}+ Col$/u);
  });

  it("runs the other way in its second form", () => {
    expect(languageOf(["en-XB"])).toEqual({ locale: "en-XB", dir: "rtl" });
    expect(say("en-XB")("try.plain")).toBe(say("en-XA")("try.plain"));
  });
});

it("the language is the first that somebody asks for and the tray speaks, and English otherwise", () => {
  expect(languageOf(["de-DE", "en-XA", "en"])).toEqual({ locale: "en-XA", dir: "ltr" });
  expect(languageOf(["tlh", "de"])).toEqual({ locale: "en", dir: "ltr" });
  expect(languageOf([])).toEqual({ locale: "en", dir: "ltr" });
  expect(say("tlh")("try.plain")).toBe("Nothing rests");
});
