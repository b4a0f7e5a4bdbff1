import { all, aRuledMessage, conditionsOver, none, worded } from "@tests/support/ruled-messages";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { STANDINGS } from "../standing/standing";
import { type Bounds, boundsOf } from "./bounds";
import type { Condition, Test } from "./condition";
import { examineCondition } from "./examine-condition";
import { testedMessage } from "./test-message";

const test: fc.Arbitrary<Test> = fc.oneof(
  fc.subarray([...STANDINGS], { minLength: 1 }).map((of): Test => ({ kind: "standing", of })),
  fc.integer({ min: 1, max: 9 }).map((hours): Test => ({ kind: "standing-for", hours })),
  fc.integer({ min: 1, max: 9 }).map((hours): Test => ({ kind: "age", hours })),
  fc.integer({ min: 1, max: 9 }).map((hours): Test => ({ kind: "due", hours })),
  fc.constant<Test>({ kind: "owner", of: [null] }),
);
const conversation = fc.record({
  standing: fc.constantFrom(...STANDINGS),
  ownerId: fc.constant(null),
  isOwnerAway: fc.boolean(),
  categoryIds: fc.constant([]),
  recordIds: fc.constant([]),
  urgency: fc.constant("no-rush" as const),
  age: fc.integer({ min: 0, max: 9 }),
  standingFor: fc.integer({ min: 0, max: 9 }),
  dueIn: fc.option(fc.integer({ min: -1, max: 9 })),
});

describe("the bounds of a condition", () => {
  it("leave out nothing that it holds of", () => {
    fc.assert(
      fc.property(conditionsOver(test, { maxDepth: 4, fewest: 0 }), conversation, (condition, one) => {
        const message = testedMessage(aRuledMessage({ conversation: one }));
        if (!examineCondition(condition, message).holds) return;
        const { standings, standingFor, age, isDue } = boundsOf(condition);
        expect(standings).toContain(one.standing);
        expect(one.standingFor).toBeGreaterThanOrEqual(standingFor);
        expect(one.age).toBeGreaterThanOrEqual(age);
        if (isDue) expect(one.dueIn).not.toBeNull();
      }),
      { numRuns: 10_000 },
    );
  });

  const standing = (...of: (typeof STANDINGS)[number][]): Condition => ({ kind: "standing", of });
  const stood = (hours: number): Condition => ({ kind: "standing-for", hours });
  it.each<[string, Condition, Partial<Bounds>]>([
    [
      "all of several",
      all(standing("waiting", "our-move"), standing("waiting"), stood(2), stood(8)),
      { standingFor: 8 },
    ],
    ["one of several", { kind: "any", of: [stood(2), stood(8)] }, { standingFor: 2 }],
    [
      "one of several, one of them at any time",
      { kind: "any", of: [stood(2), { kind: "owner-away" }] },
      { standingFor: 0 },
    ],
    ["none of several", none(stood(2)), { standingFor: 0 }],
    ["what is due", all({ kind: "due", hours: 8 }, worded("subject", "words", "tin")), { isDue: true }],
    ["when it began", { kind: "age", hours: 4 }, { age: 4 }],
  ])("are as narrow as they can be: %s", (_, condition, bounds) => {
    expect(boundsOf(condition)).toMatchObject(bounds);
  });

  it("name the standings that all of it allows", () => {
    expect([...boundsOf(all(standing("waiting", "our-move"), standing("waiting"))).standings]).toEqual(["waiting"]);
  });
});
