import { addressed, aRuledMessage, conditionsOver, worded } from "@tests/support/ruled-messages";
import fc from "fast-check";
import { expect, it } from "vitest";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type RecordId, trustedId } from "../kernel/ids";
import type { FieldMatch, Test } from "../rules/condition";
import { whyRuleHolds } from "../rules/examine-condition";
import type { RuleAction } from "../rules/rule";
import type { RuledMessage } from "../rules/ruled-message";
import { testedMessage } from "../rules/test-message";
import { isAlways, isNever, normalActions, normalForm } from "./normal-form";
import { rulesOfScript, type WrittenRule } from "./rules-of-script";
import { scriptOfRules } from "./script-of-rules";

const ADDRESSES = ["vane@vane.example", "lise+tin@dombach.example", "office@ottermoor.example"];
const TEXTS = ["tin", "Tin whistle", 'say "tin"', "back\\slash", "[bell] weekly", "a*b?"];

const values = <T>(...of: readonly T[]) => fc.array(fc.constantFrom(...of), { minLength: 1, maxLength: 3 });
const exactly = fc.constantFrom({}, { isExact: true } as const);
const relation = fc.constantFrom("gt", "ge", "lt", "le", "eq", "ne");
const match: fc.Arbitrary<FieldMatch> = fc.oneof(
  fc
    .tuple(fc.constantFrom("is", "contains", "like"), values(...TEXTS, "Été"), exactly)
    .map(([how, of, exact]) => ({ how, values: of, ...exact })),
  fc
    .tuple(values("^t[io]n", "(tin|pipe)+\\.", "w.*k", "[^[:alpha:]-]{2,3}$", "\\[bell\\]"), exactly)
    .map(([of, exact]) => ({ how: "pattern" as const, values: of, ...exact })),
  fc.record({ how: fc.constant("value"), relation, isNumber: fc.boolean(), values: values("1", "20", "2026-11-30") }),
  fc.constant({ how: "is", values: [""] }),
  fc.record({ how: fc.constant("count"), relation, values: values("1", "2") }),
);
const words = fc.tuple(fc.constantFrom("words", "phrase"), values("tin", "Tin whistle", "weekly, 42"));

const test: fc.Arbitrary<Test> = fc.oneof(
  fc
    .tuple(
      fc.constantFrom("from", "to", "cc", "recipient", "any"),
      values(...ADDRESSES, "@vane.example", "@dombach.example"),
    )
    .map(([where, of]) => addressed(where, ...of)),
  fc.tuple(fc.constantFrom("subject", "body", "parts"), words).map(([where, [how, of]]) => worded(where, how, ...of)),
  fc
    .tuple(fc.constantFrom("subject", "parts"), fc.constantFrom("is", "contains", "like"), values(...TEXTS))
    .map(([where, how, of]) => worded(where, how, ...of)),
  fc.record({ kind: fc.constant("list"), of: values("bell.lists.halse.example", "organ.example") }),
  fc.constantFrom<Test>(
    { kind: "size", over: 900 },
    { kind: "size", under: 2_000 },
    { kind: "size", over: 1, under: 999 },
  ),
  fc.record({ kind: fc.constant("header"), names: values("subject", "x-score", "list-id"), match }),
  fc.record({ kind: fc.constant("header"), names: values("x-score", "cc"), match: fc.constant({ how: "exists" }) }),
  fc.record({
    kind: fc.constant("address-part"),
    names: fc.oneof(values("from", "to", "sender"), values("envelope-from", "envelope-to")),
    part: fc.constantFrom("all", "localpart", "domain", "user", "detail"),
    match: fc.oneof(
      match,
      values(...ADDRESSES, "vane.example").map((of): FieldMatch => ({ how: "is", values: of })),
    ),
  }),
  fc.record({ kind: fc.constant("weekday"), of: fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1 }) }),
  fc.constantFrom<Test>(
    { kind: "days", from: "2026-11-01", until: null },
    { kind: "days", from: null, until: "2026-12-24" },
    { kind: "days", from: "2026-11-30", until: "2026-12-01" },
  ),
  fc
    .record({
      kind: fc.constant("date-part"),
      field: fc.constantFrom(null, "date"),
      zone: fc.constantFrom(null, "+0100", "original"),
      part: fc.constantFrom("hour", "weekday", "date", "year", "time"),
      match,
    })
    .filter(({ field, zone }) => field !== null || zone !== "original"),
);

const condition = conditionsOver(test, { maxDepth: 3, fewest: 1 });

const action = fc.constantFrom<RuleAction>(
  { kind: "categorise", categoryId: trustedId<CategoryId>("Tuning"), give: true },
  { kind: "categorise", categoryId: trustedId<CategoryId>('Say "tin"'), give: true },
  { kind: "file", recordId: trustedId<RecordId>("P-26-012") },
  { kind: "urgency", urgency: "today" },
  { kind: "redirect", to: "workshop@elsewhere.example" as EmailAddress },
  { kind: "answer", text: 'We are away.\r\n"Back" on \\ Monday.', days: 3 },
  { kind: "settle" },
  { kind: "bin" },
  { kind: "junk" },
);

const rule: fc.Arbitrary<WrittenRule> = fc.record({
  name: fc.constantFrom("Tin", "Weekly: from {Vane}", "“;” # stop"),
  isOn: fc.boolean(),
  isLast: fc.boolean(),
  condition,
  exception: fc.option(condition),
  actions: fc.array(action, { maxLength: 4 }),
});

const address = fc.constantFrom(...ADDRESSES).map((one) => one as EmailAddress);
const text = fc.constantFrom("", "a Tin whistle", "weekly 42", "[bell] weekly: tin.", "été", 'say "tin"');
const message: fc.Arbitrary<RuledMessage> = fc
  .record({
    from: fc.option(address),
    to: fc.array(address, { maxLength: 2 }),
    cc: fc.array(address, { maxLength: 2 }),
    subject: text,
    ownText: text,
    list: fc.constantFrom(null, "bell.lists.halse.example"),
    size: fc.constantFrom(500, 950, 5_000),
    score: fc.constantFrom(null, "", "1", "20"),
  })
  .map(({ score, ...given }) =>
    aRuledMessage({
      ...given,
      headers: [
        ...(given.subject === "" ? [] : [{ name: "subject", value: given.subject }]),
        ...(given.list === null ? [] : [{ name: "list-id", value: `Bell <${given.list}>` }]),
        ...(score === null ? [] : [{ name: "x-score", value: score }]),
        { name: "date", value: "Mon, 30 Nov 2026 23:30:00 -0500" },
      ],
      addressFields: new Map([
        ["from", given.from === null ? [] : [given.from]],
        ["to", given.to],
        ["cc", given.cc],
      ]),
      envelope: { from: given.from, to: given.to },
    }),
  );

const RUNS = 10_000;

// A group that denies beside an exception is told apart from it by the order only.
const isPlain = ({ condition: asked, exception }: WrittenRule) => {
  const [normal, excepted] = [normalForm(asked), exception === null ? null : normalForm(exception)];
  const isConstant = isNever(normal) || (excepted !== null && (isNever(excepted) || isAlways(excepted)));
  return !isConstant;
};

it("is the same rule there and back, and for the same messages", { timeout: 180_000 }, () => {
  fc.assert(
    fc.property(rule.filter(isPlain), fc.array(message, { minLength: 1, maxLength: 3 }), (original, messages) => {
      const { script, lacks } = scriptOfRules([original]);
      expect(lacks).toEqual([]);
      const back = rulesOfScript(script);
      expect(back).toMatchObject({
        ok: true,
        value: {
          leftOut: [],
          rules: [
            {
              ...original,
              condition: normalForm(original.condition),
              exception: original.exception === null ? null : normalForm(original.exception),
              actions: normalActions(original.actions),
            },
          ],
        },
      });
      const [read] = back.ok ? back.value.rules : [];
      for (const one of messages.map(testedMessage))
        expect(read !== undefined && whyRuleHolds(read, one) !== null).toBe(whyRuleHolds(original, one) !== null);
    }),
    { numRuns: RUNS },
  );
});
