import { expect, it } from "vitest";
import { quoteLevels } from "./quote-levels";

it("cuts a text where the depth of quotation changes", () => {
  expect(quoteLevels("Ines wrote:\n> May we?\n>> Please.\n> > come\n\nYes.\nAt ten.")).toEqual([
    { level: 0, text: "Ines wrote:" },
    { level: 1, text: "May we?" },
    { level: 2, text: "Please.\ncome" },
    { level: 0, text: "Yes.\nAt ten." },
  ]);
});

it.each(["", "\n\n", ">\n>"])("finds nothing to show in %j", (text) => expect(quoteLevels(text)).toEqual([]));
