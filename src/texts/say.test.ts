import { describe, expect, it } from "vitest";
import { catalogue } from "./catalogue";
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
