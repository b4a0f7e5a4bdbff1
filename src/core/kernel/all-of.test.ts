import { inEnglish } from "@tests/support/english";
import { expect, it } from "vitest";
import { allOf } from "./all-of";

it("says all of so many things as people do", () => {
  expect(inEnglish([1, 2, 3, 1_200].map(allOf))).toEqual(["it", "both", "all 3", "all 1,200"]);
});
