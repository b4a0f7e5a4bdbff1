import { inEnglish } from "@tests/support/english";
import { aRule, worded } from "@tests/support/ruled-messages";
import { expect, it } from "vitest";
import { instant } from "../kernel/instant";
import { isInForce } from "./rule";
import { ruleChanges } from "./rule-changes";

const tin = worded("subject", "words", "tin");
const before = aRule({ name: "Tin", condition: tin });

it.each([
  ["its first version", null, before, ["made it"]],
  ["nothing", before, { ...before }, []],
  [
    "its name and its state",
    before,
    { ...before, name: "Lead", isOn: false },
    ["renamed it from “Tin”", "switched it off"],
  ],
  ["its state again", { ...before, isOn: false }, before, ["switched it on"]],
  [
    "what it is for",
    before,
    { ...before, condition: worded("subject", "words", "lead"), exception: tin },
    ["changed which messages it is for", "changed its exceptions"],
  ],
  [
    "what it does",
    before,
    { ...before, actions: [{ kind: "settle" as const }], isLast: true },
    ["changed what it does", "had no later rule asked"],
  ],
  ["that it is the last", { ...before, isLast: true }, before, ["had later rules asked again"]],
  [
    "its times",
    before,
    { ...before, times: { moment: "arrival" as const, from: null, until: instant(5) } },
    ["changed when it is asked"],
  ],
])("says that somebody changed %s", (_, was, is, words) => {
  expect(inEnglish(ruleChanges(was, is))).toEqual(words);
});

it("is in force from its beginning on, until its end, and at its moment", () => {
  const times = { moment: "sending" as const, from: instant(10), until: instant(20) };
  const asked = [9, 10, 19, 20].map((at) => isInForce({ times }, "sending", instant(at)));
  expect(asked).toEqual([false, true, true, false]);
  expect(isInForce({ times }, "arrival", instant(15))).toBe(false);
  expect(isInForce({}, "arrival", instant(15))).toBe(true);
});
