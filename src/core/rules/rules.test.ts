import { inEnglish } from "@tests/support/english";
import { describe, expect, it } from "vitest";
import type { Effect, JournalEntry } from "../journal/entry";
import type { EmailAddress } from "../kernel/email-address";
import { type CategoryId, type MemberId, type MessageId, type RecordId, type RuleId, trustedId } from "../kernel/ids";
import { instant } from "../kernel/instant";
import type { ConversationFacts, MessageFact } from "../standing/derive-standing";
import { type RuledMessage, whyRuleHolds } from "./match-rule";
import { type Givable, planRule, rulesThatHold } from "./plan-rules";
import { checkRule, NO_ACTIONS, NO_CONDITIONS, type Rule, type RuleActions, withCategoryReplaced } from "./rule";
import { actionsInWords, conditionsInWords } from "./rule-in-words";

const address = (text: string) => text as EmailAddress;
const [tuning, rounds] = [trustedId<CategoryId>("tuning"), trustedId<CategoryId>("rounds")];
const [ines, tobias] = [trustedId<MemberId>("ines"), trustedId<MemberId>("tobias")];
const sorrel = trustedId<RecordId>("sorrel");

const message: RuledMessage = {
  from: address("billing@dombach.example"),
  to: [address("office@ottermoor.example")],
  subject: "Invoice 2031 for tin",
  ownText: "Please find the invoice attached.",
  list: null,
  hasAttachment: true,
};
const rule = (given: Partial<Rule> = {}): Rule => ({
  id: trustedId<RuleId>("r"),
  name: "Tin",
  isOn: true,
  isLast: false,
  conditions: NO_CONDITIONS,
  exceptions: NO_CONDITIONS,
  actions: { ...NO_ACTIONS, categoryIds: [tuning] },
  ...given,
});
const when = (conditions: Partial<Rule["conditions"]>, exceptions: Partial<Rule["exceptions"]> = {}) =>
  rule({ conditions: { ...NO_CONDITIONS, ...conditions }, exceptions: { ...NO_CONDITIONS, ...exceptions } });

describe("a rule is for a message", () => {
  it.each<[string, Rule, string | null]>([
    ["an address", when({ from: ["billing@dombach.example"] }), "from billing@dombach.example"],
    ["everybody of a domain", when({ from: ["@dombach.example"] }), "from @dombach.example"],
    ["not of a domain that ends alike", when({ from: ["@bach.example"] }), null],
    ["any of several", when({ from: ["@x.example", "@dombach.example"] }), "from @dombach.example"],
    ["all parts", when({ from: ["@dombach.example"], subject: ["order"] }), null],
    ["words together", when({ subject: ["tin invoice"] }), "“tin invoice” in the subject"],
    ["whole words only", when({ subject: ["voice"] }), null],
    ["its own text", when({ text: ["INVOICE"] }), "“INVOICE” in the text"],
    ["to whom it went", when({ to: ["office@ottermoor.example"] }), "to office@ottermoor.example"],
    ["no list", when({ list: ["members.example"] }), null],
    ["an attachment", when({ hasAttachment: true }), "with an attachment"],
    ["none", when({ hasAttachment: false }), null],
    ["nothing asked for", when({}), null],
    ["an exception", when({ from: ["@dombach.example"] }, { subject: ["reminder", "invoice"] }), null],
    [
      "an exception of which only a part holds",
      when({ from: ["@dombach.example"] }, { subject: ["invoice"], hasAttachment: false }),
      "from @dombach.example",
    ],
  ])("%s", (_, given, why) => {
    expect(inEnglish(whyRuleHolds(given, message))).toBe(why);
  });

  it("in its order, up to the last, and only when it is on", () => {
    const from = { ...NO_CONDITIONS, from: ["@dombach.example"] };
    const names = rulesThatHold(
      [
        rule({ name: "off", conditions: from, isOn: false }),
        rule({ name: "one", conditions: from }),
        rule({ name: "not for it", conditions: { ...NO_CONDITIONS, subject: ["order"] }, isLast: true }),
        rule({ name: "two", conditions: from, isLast: true }),
        rule({ name: "three", conditions: from }),
      ],
      message,
    ).map(({ rule: { name } }) => name);
    expect(names).toEqual(["one", "two"]);
  });

  it("from nobody: no address is hers", () => {
    expect(inEnglish(whyRuleHolds(when({ from: ["@dombach.example"] }), { ...message, from: null }))).toBeNull();
  });
});

const arrived: MessageFact = {
  id: trustedId<MessageId>("m"),
  version: 1,
  direction: "in",
  kind: "person",
  failedRecipients: [],
  at: instant(0),
  arrivedAt: instant(0),
  from: address("a@x.example"),
  fromName: "",
  authorId: null,
};
const facts = (...effects: readonly [Effect, MemberId | null][]): ConversationFacts => ({
  messages: [arrived],
  entries: effects.map(
    ([effect, by], at): JournalEntry => ({
      id: trustedId(`e${at}`),
      version: at + 2,
      at: instant(at + 1),
      by,
      effect,
    }),
  ),
  replacedCategories: [],
  replacedOwners: [],
});
const everything: Givable = { isCategory: () => true, isRecord: () => true, inCharge: (id) => id };
const actions = (given: Partial<RuleActions>) => ({ actions: { ...NO_ACTIONS, ...given } });

describe("what a rule does", () => {
  const all = actions({
    categoryIds: [tuning, rounds],
    recordId: sorrel,
    ownerId: ines,
    urgency: "today",
    putAway: "settle",
  });

  it("is everything that it says, once", () => {
    const kinds = (known: ConversationFacts) => planRule(all, known, everything, true).map(({ kind }) => kind);
    expect(kinds(facts())).toEqual(["categorised", "categorised", "filed", "assigned", "urgency-set", "settled"]);
    expect(kinds(facts([{ kind: "categorised", categoryId: tuning }, null]))).toHaveLength(5);
  });

  it("is never against what somebody decided, and puts away only what begins", () => {
    const known = facts(
      [{ kind: "uncategorised", categoryId: tuning }, tobias],
      [{ kind: "assigned", ownerId: tobias }, tobias],
    );
    expect(planRule(all, known, everything, false)).toEqual([
      { kind: "categorised", categoryId: rounds },
      { kind: "filed", recordId: sorrel },
      { kind: "urgency-set", urgency: "today" },
    ]);
  });

  it("leaves out what there is no more, and goes to whoever is in charge", () => {
    const some: Givable = { isCategory: (id) => id === rounds, isRecord: () => false, inCharge: () => tobias };
    expect(
      planRule(actions({ categoryIds: [tuning, rounds], recordId: sorrel, ownerId: ines }), facts(), some, true),
    ).toEqual([
      { kind: "categorised", categoryId: rounds },
      { kind: "assigned", ownerId: tobias },
    ]);
    expect(planRule(actions({ ownerId: ines }), facts(), { ...some, inCharge: () => null }, true)).toEqual([]);
  });
});

describe("a rule that is kept", () => {
  it.each([
    [{ name: " " }, { name: "Give the rule a name." }],
    [{ name: "x".repeat(61) }, { name: "A name has at most 60 characters." }],
    [{ name: "INVOICES" }, { name: "Another rule has that name." }],
    [{ conditions: NO_CONDITIONS }, { conditions: "Say which messages it is for." }],
    [{ actions: NO_ACTIONS }, { actions: "Say what it does." }],
    [{ conditions: { ...NO_CONDITIONS, hasAttachment: false } }, {}],
  ])("with %j says %j", (given, problems) => {
    expect(inEnglish(checkRule({ ...when({ from: ["@x.example"] }), ...given }, [{ name: "Invoices" }]))).toEqual(
      problems,
    );
  });

  it("gives what stands for a category that ended, and is off when it does nothing any more", () => {
    const both = rule({ actions: { ...NO_ACTIONS, categoryIds: [tuning, rounds] } });
    expect(withCategoryReplaced(both, tuning, rounds).actions.categoryIds).toEqual([rounds]);
    expect(withCategoryReplaced(rule(), tuning, null)).toMatchObject({ isOn: false, actions: { categoryIds: [] } });
    expect(withCategoryReplaced(both, tuning, null).isOn).toBe(true);
  });

  it("is a sentence", () => {
    const given = when({ from: ["@a.example", "b@c.example"], text: ["tin"] }, { hasAttachment: true });
    expect(inEnglish(conditionsInWords(given))).toBe(
      "from @a.example or b@c.example, with “tin” in the text, unless with an attachment",
    );
    const names = { member: () => "Ines", category: () => "Tuning", record: () => "P-1" };
    const does = actions({ categoryIds: [tuning], recordId: sorrel, ownerId: ines, urgency: "days", putAway: "bin" });
    expect(inEnglish(actionsInWords(does.actions, names))).toEqual([
      "adds Tuning",
      "files it to P-1",
      "assigns it to Ines",
      "sets the urgency to Within days",
      "puts it in the bin",
    ]);
  });
});
