import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { codesIn, featuresOf, MAX_WORDS, readFeature } from "./features";

const LETTER = {
  from: "Vane@VaneHouse.example",
  listId: null,
  subject: "Re: Tuning 2026",
  ownText: "Could the reeds of the M16 be tuned? Tuning is due.",
};

describe("the features of a letter", () => {
  it("are its sender, their domain, its list and its words, once each, without numbers", () => {
    expect(featuresOf({ ...LETTER, listId: "news.vanehouse.example" })).toEqual(
      ["*", "p:vane@vanehouse.example", "d:vanehouse.example", "l:news.vanehouse.example"].concat(
        ["re", "tuning", "could", "the", "reeds", "of", "m16", "be", "tuned", "is", "due"].map((word) => `w:${word}`),
      ),
    );
    expect(readFeature("d:vanehouse.example")).toEqual({ kind: "domain", text: "vanehouse.example" });
    expect(readFeature("r:1")).toEqual({ kind: "record", text: "1" });
    expect(readFeature("*")).toEqual({ kind: "everything", text: "" });
    expect(() => readFeature("q:x")).toThrow("no feature");
  });
  it("are few, whatever the letter", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 9_000 }), fc.string(), fc.string(), (ownText, subject, from) => {
        const features = featuresOf({ from, listId: null, subject, ownText });
        expect(features.length).toBeLessThanOrEqual(MAX_WORDS + 3);
        expect(new Set(features).size).toBe(features.length);
      }),
    );
  });
  it("are apart from the reference codes in it", () => {
    expect(codesIn({ ...LETTER, subject: "P-26-012 again" })).toEqual(["P-26-012"]);
  });
});
