import { addressed, aRuledMessage, conditionsOver, worded } from "@tests/support/ruled-messages";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { trustedId } from "../kernel/ids";
import type { Condition, Test } from "./condition";
import { examineCondition, rulesThatHold } from "./examine-condition";
import { indexRules } from "./rule-index";
import type { RuledMessage } from "./ruled-message";
import { testedMessage } from "./test-message";

const ADDRESSES = ["a@x.example", "b@x.example", "a@y.example", "office@ottermoor.example"];
const WORDS = ["tin", "invoice", "order", "Été", "42"];
const some = <T>(all: readonly T[], least = 0) => fc.subarray([...all], { minLength: least });
const text = fc.array(fc.constantFrom(...WORDS, "-", "tinder"), { maxLength: 4 }).map((words) => words.join(" "));

const test: fc.Arbitrary<Test> = fc.oneof(
  fc
    .tuple(fc.constantFrom("from", "to", "recipient", "any"), some([...ADDRESSES, "@x.example", "@y.example"], 1))
    .map(([where, of]) => addressed(where, ...of)),
  fc
    .tuple(
      fc.constantFrom("subject", "text", "body"),
      fc.constantFrom("words", "phrase", "contains", "is", "like", "pattern"),
      fc.array(fc.constantFrom(...WORDS, "tin invoice", "t*n", "in", "?"), { minLength: 1, maxLength: 2 }),
    )
    .filter(([, how, values]) => how !== "pattern" || !values.includes("?"))
    .map(([where, how, values]) => worded(where, how, ...values)),
  some(["l1.example", "l2.example"], 1).map((of): Test => ({ kind: "list", of })),
  fc.boolean().map((isFirst): Test => ({ kind: "opening", isFirst })),
  fc.boolean().map((is): Test => ({ kind: "verified", is })),
  fc.constantFrom<Test>(
    { kind: "address", where: "from", of: [{ kind: "known" }] },
    { kind: "address", where: "any", of: [{ kind: "colleague" }, { kind: "domain", domain: "x.example" }] },
    { kind: "owner", of: [null] },
    { kind: "attachment" },
    { kind: "reference", of: [] },
    { kind: "open", is: false },
  ),
);

const condition = conditionsOver(test, { maxDepth: 4, fewest: 0 });

const rules = fc.array(
  fc.record({
    isOn: fc.boolean(),
    isLast: fc.boolean(),
    condition,
    exception: fc.option(condition),
  }),
  { maxLength: 8 },
);

const address = fc.constantFrom(...ADDRESSES).map((one) => one as EmailAddress);
const message: fc.Arbitrary<RuledMessage> = fc
  .record({
    from: fc.option(address),
    to: fc.array(address, { maxLength: 2 }),
    cc: fc.array(address, { maxLength: 1 }),
    subject: text,
    ownText: text,
    restText: text,
    list: fc.constantFrom(null, "l1.example", "l2.example"),
    isFirst: fc.boolean(),
    isVerified: fc.boolean(),
    references: fc.constantFrom([], [trustedId<never>("r")]),
    hasAttachment: fc.boolean(),
    hasOwner: fc.boolean(),
    isKnown: fc.boolean(),
  })
  .map(({ hasAttachment, hasOwner, isKnown, ...given }) =>
    aRuledMessage({
      ...given,
      attachments: hasAttachment ? [{ fileName: "a.pdf", contentType: "application/pdf", size: 1 }] : [],
      correspondents: new Map(
        ADDRESSES.map((one) => [
          one as EmailAddress,
          { contactId: null, categoryIds: [], organisation: "", isColleague: one.includes("b"), isKnown },
        ]),
      ),
      conversation: {
        standing: "to-sort",
        ownerId: hasOwner ? trustedId("m") : null,
        isOwnerAway: false,
        categoryIds: [],
        recordIds: [],
        urgency: "no-rush",
        age: 0,
        standingFor: 0,
        dueIn: null,
      },
    }),
  );

const RUNS = 10_000;

describe("rules by their index", () => {
  it("are for the same messages as when each is examined", { timeout: 120_000 }, () => {
    fc.assert(
      fc.property(rules, message, (all, one) => {
        const tested = testedMessage(one);
        const naive: unknown[] = [];
        for (const rule of all) {
          const isExcepted = rule.exception !== null && examineCondition(rule.exception, tested).holds;
          if (!rule.isOn || !examineCondition(rule.condition, tested).holds || isExcepted) continue;
          naive.push(rule);
          if (rule.isLast) break;
        }
        const planned = rulesThatHold(indexRules(all).candidates(tested), tested).map(({ rule }) => rule);
        expect(planned).toEqual(naive);
      }),
      { numRuns: RUNS },
    );
  });

  it("asks few of many", () => {
    const all = ADDRESSES.map((one) => ({
      isOn: true,
      isLast: false,
      condition: addressed("from", one),
      exception: null,
    }));
    const from = "a@y.example" as EmailAddress;
    expect(indexRules(all).candidates(testedMessage(aRuledMessage({ from })))).toEqual([all[2]]);
  });

  it("takes what has to be looked up for what lets a rule hold", () => {
    const isOwned: Condition = { kind: "owner", of: [null] };
    const candidates = (wanted: Condition) =>
      indexRules([{ isOn: true, condition: wanted }]).candidates(testedMessage(aRuledMessage())).length;
    expect(candidates(isOwned)).toBe(1);
    expect(candidates({ kind: "none", of: [isOwned] })).toBe(1);
    expect(candidates({ kind: "all", of: [isOwned, addressed("from", "a@x.example")] })).toBe(0);
  });
});
