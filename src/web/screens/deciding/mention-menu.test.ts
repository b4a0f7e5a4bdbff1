import { expect, it } from "vitest";
import { callBefore } from "./mention-menu";

it.each<[string, ReturnType<typeof callBefore>]>([
  ["@", { from: 0, typed: "" }],
  ["ask @to", { from: 4, typed: "to" }],
  ["(@Tobias L", { from: 1, typed: "Tobias L" }],
  ["@Tobias Lund please", null],
  ["mail jon@x", null],
  ["nothing", null],
  ["@Ines and @T", { from: 10, typed: "T" }],
])("after %j", (text, call) => expect(callBefore(text, text.length)).toEqual(call));

it("looks at what stands before the cursor only", () => {
  expect(callBefore("@Ines went home", 3)).toEqual({ from: 0, typed: "In" });
});
