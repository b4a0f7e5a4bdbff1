import { describe, expect, it } from "vitest";
import { catalogue } from "./catalogue";
import { languageOf, loadLanguage, type Say, sayIn } from "./say";
import type { Translation } from "./translations";

const tryTexts = catalogue({
  "another.plain": "Nothing rests",
  "another.counted": "{count, plural, one {1 thing} other {# things}}",
  "another.later": "Not translated yet",
});

const DUTCH: Translation = {
  locale: "nl",
  dir: "ltr",
  load: async () => ({
    default: new Map([
      ["another.plain", "Niets rust"],
      ["another.counted", "{count, plural, one {1 ding} other {# dingen}}"],
    ]),
  }),
};

describe("a language beside English", () => {
  it("is spoken to whoever asks for it, once it was fetched, with its own figures and days", async () => {
    await loadLanguage("nl", [DUTCH]);
    const say = sayIn(languageOf(["nl"]).locale) as Say<typeof tryTexts>;
    expect(say("another.plain")).toBe("Niets rust");
    expect(say("another.counted", { count: 12_840 })).toBe("12.840 dingen");
    expect(say({ at: Date.UTC(2026, 4, 3), zone: "UTC", form: "day-in-full" })).toBe("3 mei 2026");
  });

  it("says in English what nobody has translated", async () => {
    await loadLanguage("nl", [DUTCH]);
    expect((sayIn("nl") as Say<typeof tryTexts>)("another.later")).toBe("Not translated yet");
  });

  it("needs nothing to be fetched where English is spoken, or what nobody speaks", async () => {
    await loadLanguage("en");
    await loadLanguage("tlh");
    expect((sayIn("tlh") as Say<typeof tryTexts>)("another.plain")).toBe("Nothing rests");
  });
});
