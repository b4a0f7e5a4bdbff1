import { expect, it } from "vitest";
import { groupedBy } from "./grouped";

it("groups by a key, in the order in which the keys come", () => {
  const groups = groupedBy(["pipe", "key", "pallet", "kick"], (word) => word[0]);
  expect([...groups]).toEqual([
    ["p", ["pipe", "pallet"]],
    ["k", ["key", "kick"]],
  ]);
  expect(groupedBy([], () => 1).size).toBe(0);
});
