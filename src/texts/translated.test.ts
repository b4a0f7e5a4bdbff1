import "./en/index";
import { describe, expect, it } from "vitest";
import type { commonTexts } from "./en/common";
import { languageOf, loadLanguage, type Say, sayIn } from "./say";
import { type Translation, translation } from "./translations";

const DUTCH: Translation = {
  locale: "nl",
  dir: "ltr",
  load: async () => ({
    default: translation({
      "common.cancel": "Annuleren",
      "common.earlierTextLines": "Eerdere tekst, {restLines, plural, one {1 regel} other {# regels}}",
    }),
  }),
};

describe("a language beside English", () => {
  it("is spoken to whoever asks for it, once it was fetched, with its own figures and days", async () => {
    await loadLanguage("nl", [DUTCH]);
    const say = sayIn(languageOf(["nl"]).locale) as Say<typeof commonTexts>;
    expect(say("common.cancel")).toBe("Annuleren");
    expect(say("common.earlierTextLines", { restLines: 12_840 })).toBe("Eerdere tekst, 12.840 regels");
    expect(say({ at: Date.UTC(2026, 4, 3), zone: "UTC", form: "day-in-full" })).toBe("3 mei 2026");
  });

  it("says in English what nobody has translated", async () => {
    await loadLanguage("nl", [DUTCH]);
    expect((sayIn("nl") as Say<typeof commonTexts>)("common.name")).toBe("Name");
  });

  it("needs nothing to be fetched where English is spoken, or what nobody speaks", async () => {
    await loadLanguage("en");
    await loadLanguage("tlh");
    expect((sayIn("tlh") as Say<typeof commonTexts>)("common.cancel")).toBe("Cancel");
  });
});
