import { addressed, worded } from "@tests/support/ruled-messages";
import { describe, expect, it } from "vitest";
import type { Condition } from "../../../core/rules/condition";
import {
  blankTest,
  conditionOf,
  editedCondition,
  finished,
  finishedInPlace,
  newGroup,
  newTest,
} from "./edited-condition";

const invoice = worded("subject", "words", "invoice");
const from = addressed("from", "a@x.example", "@y.example");

describe("a condition while it is edited", () => {
  it("comes out as it went in", () => {
    const condition: Condition = { kind: "all", of: [from, { kind: "none", of: [invoice] }] };
    expect(conditionOf(editedCondition(condition))).toEqual(condition);
    expect(conditionOf(editedCondition(invoice))).toEqual({ kind: "all", of: [invoice] });
  });

  it("asks for people of different kinds in lines of their own", () => {
    const mixed: Condition = { ...from, of: [{ kind: "known" }, ...from.of, { kind: "colleague" }] };
    expect(conditionOf(editedCondition({ kind: "all", of: [mixed] }))).toEqual({
      kind: "all",
      of: [
        {
          kind: "any",
          of: [from, { ...from, of: [{ kind: "known" }] }, { ...from, of: [{ kind: "colleague" }] }],
        },
      ],
    });
  });

  it("leaves out what asks for nothing yet, or has what changes nothing in its place", () => {
    const nobody = newTest({ kind: "address", where: "from", of: [{ kind: "organisation", name: "" }] });
    const group = newGroup("all", [
      newTest(blankTest("text")),
      newGroup("any", [nobody]),
      newGroup("none", [newTest(blankTest("list")), newTest(invoice)]),
      newTest(blankTest("days")),
      newTest(blankTest("verified")),
    ]);
    expect(finished(group)).toEqual({
      kind: "all",
      of: [
        { kind: "none", of: [invoice] },
        { kind: "verified", is: false },
      ],
    });
    const [every, never] = [{ kind: "every" }, { kind: "none", of: [{ kind: "every" }] }];
    expect(finishedInPlace(group)).toEqual({
      kind: "all",
      of: [every, every, { kind: "none", of: [never, invoice] }, every, { kind: "verified", is: false }],
    });
    expect(finished(newGroup("any", [nobody]))).toBeNull();
  });
});
