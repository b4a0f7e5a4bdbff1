import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type ConversationId, trustedId } from "../kernel/ids";
import { findRoutines, type Passed } from "./find-routines";

let made = 0;
const passed = (count: number, given: Partial<Passed>): Passed[] =>
  Array.from({ length: count }, () => {
    made += 1;
    const id = trustedId<ConversationId>(`c${made}`);
    return { id, from: "watch@bellows.example" as EmailAddress, list: null, putAway: "settle", ...given };
  });
const found = (...all: readonly Passed[][]) =>
  findRoutines(all.flat()).map(({ key, putAway, ids }) => [key, putAway, ids.length]);

describe("what is put away unread each time", () => {
  it("is told by its list or its sender, the most first", () => {
    const bells = passed(30, {
      list: "bells.lists.halse.example",
      from: "a@x.example" as EmailAddress,
      putAway: "bin",
    });
    const more = passed(5, { list: "bells.lists.halse.example", from: "b@y.example" as EmailAddress, putAway: "bin" });
    expect(found(passed(12, {}), bells, more)).toEqual([
      ["list:bells.lists.halse.example", "bin", 35],
      ["from:watch@bellows.example", "settle", 12],
    ]);
  });

  it.each<[string, Passed[][], number]>([
    ["so little that it is no trouble", [passed(9, {})], 0],
    ["enough", [passed(10, {})], 1],
    ["what somebody opens now and then", [passed(36, {}), passed(3, { putAway: null })], 0],
    ["what was opened once", [passed(38, {}), passed(1, { putAway: null })], 1],
    ["what is put away in different ways", [passed(20, {}), passed(20, { putAway: "bin" })], 0],
    ["what nobody knows the sender of", [passed(20, { from: null })], 0],
  ])("%s", (_, all, count) => {
    expect(found(...all)).toHaveLength(count);
  });

  it("names the conversations in their order", () => {
    const all = passed(11, {});
    expect(findRoutines(all)[0]?.ids).toEqual(all.map(({ id }) => id));
  });
});
