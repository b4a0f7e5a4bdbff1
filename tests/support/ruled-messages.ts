import fc from "fast-check";
import type { EmailAddress } from "../../src/core/kernel/email-address";
import { type CategoryId, type RuleId, trustedId } from "../../src/core/kernel/ids";
import { instant } from "../../src/core/kernel/instant";
import type { LeftAs } from "../../src/core/rules/compare-rule";
import type {
  AddressMatch,
  AddressPlace,
  Condition,
  Test,
  TestOf,
  TextMatch,
  TextPlace,
} from "../../src/core/rules/condition";
import type { Rule } from "../../src/core/rules/rule";
import type { RuledMessage } from "../../src/core/rules/ruled-message";

// Monday, 30 November 2026, at 9:30 UTC.
const ARRIVED = instant(Date.UTC(2026, 10, 30, 9, 30));

/** A message as rules see it: from a person to us, with nothing remarkable but what is given. */
export function aRuledMessage(given: Partial<RuledMessage> = {}): RuledMessage {
  return {
    from: "vane@vane.example" as EmailAddress,
    to: ["office@ottermoor.example" as EmailAddress],
    cc: [],
    ours: ["office@ottermoor.example" as EmailAddress],
    envelope: { from: null, to: [] },
    subject: "",
    ownText: "",
    restText: "",
    otherTexts: () => [],
    kind: "person",
    list: null,
    isFirst: true,
    attachments: [],
    size: 1_000,
    headers: [],
    addressFields: new Map(),
    isVerified: false,
    arrived: { at: ARRIVED, zone: "Europe/Berlin", isOpen: true },
    references: [],
    templateId: null,
    correspondents: new Map(),
    conversation: null,
    ...given,
  };
}

/** A test for addresses, or for everybody of a domain (`@x.example`). */
export function addressed(where: AddressPlace, ...of: readonly string[]): TestOf<"address"> {
  const matches = of.map(
    (one): AddressMatch =>
      one.startsWith("@")
        ? { kind: "domain", domain: one.slice(1) }
        : { kind: "address", address: one as EmailAddress },
  );
  return { kind: "address", where, of: matches };
}

/** A test for words. */
export function worded(where: TextPlace, how: TextMatch["how"], ...values: readonly string[]): TestOf<"text"> {
  return { kind: "text", where, match: { how, values } };
}

/** A rule that gives a category to what a house sends, but for what is given. */
export function aRule(given: Partial<Rule> = {}): Rule {
  return {
    id: trustedId<RuleId>("r"),
    name: "Tin",
    isOn: true,
    isLast: false,
    condition: addressed("from", "@dombach.example"),
    exception: null,
    actions: [{ kind: "categorise", categoryId: trustedId<CategoryId>("tuning"), give: true }],
    ...given,
  };
}

/** Conditions together, by how many of them have to hold. */
export const all = (...of: Condition[]): Condition => ({ kind: "all", of });
export const any = (...of: Condition[]): Condition => ({ kind: "any", of });
export const none = (...of: Condition[]): Condition => ({ kind: "none", of });

/** Trees of tests, at random; `fewest` parts in a group. */
export function conditionsOver(
  test: fc.Arbitrary<Test>,
  { maxDepth, fewest }: { readonly maxDepth: number; readonly fewest: number },
): fc.Arbitrary<Condition> {
  return fc.letrec<{ condition: Condition }>((tie) => ({
    condition: fc.oneof(
      { maxDepth, withCrossShrink: true },
      test,
      fc.record({
        kind: fc.constantFrom("all", "any", "none"),
        of: fc.array(tie("condition"), { minLength: fewest, maxLength: 3 }),
      }),
    ),
  })).condition;
}

/** A conversation that nobody did anything with, but for what is given. */
export function leftAs(given: Partial<LeftAs> = {}): LeftAs {
  return {
    standing: "to-sort",
    ownerId: null,
    categoryIds: [],
    recordIds: [],
    urgency: "no-rush",
    isAnswered: false,
    ...given,
  };
}
