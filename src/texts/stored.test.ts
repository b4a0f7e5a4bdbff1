import { describe, expect, it } from "vitest";
import { catalogue } from "./catalogue";
import { saidOf } from "./said";
import { sayIn } from "./say";
import { readStoredWording, storedWording } from "./stored";

const said = saidOf(catalogue({ "stored.carries": "carries {what}", "stored.report": "a report" }));

describe("a wording that is kept", () => {
  it("is said as it would have been, in the language of whoever reads it", () => {
    const wording = said("stored.carries", { what: said("stored.report") });
    const kept = readStoredWording(storedWording(wording));
    expect(kept).toEqual(wording);
    expect(sayIn("en")(wording)).toBe("carries a report");
    expect(sayIn("en-XA")(wording)).toMatch(/^\P{ASCII}+ \P{ASCII}+ \P{ASCII}+$/u);
  });

  it("is what was written where a text was kept", () => {
    expect(readStoredWording("carries x-autoreply")).toBe("carries x-autoreply");
    for (const text of ['{"x":1}', '{"all":3,"by":"and"}', '{"key":4,"values":{}}', "{curly}, he said"])
      expect(readStoredWording(text)).toBe(text);
  });
});
