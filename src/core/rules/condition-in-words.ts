import { rulesTexts } from "../../texts/en/rules";
import { type Listed, type Said, type Sayable, saidOf, type Wording } from "../../texts/said";
import type { EmailAddress } from "../kernel/email-address";
import type { CategoryId, ContactId, GroupId, MemberId, RecordId, RoundId, TemplateId } from "../kernel/ids";
import { sizeInWords } from "../kernel/size-in-words";
import { URGENCY_NAMES } from "../kernel/urgency";
import type { MessageKind } from "../message/mail-message";
import { STANDING_NAMES } from "../standing/standing";
import {
  type AddressMatch,
  type Condition,
  type FieldMatch,
  isGroup,
  type Reach,
  type Test,
  type TestKind,
  type TestOf,
} from "./condition";

const said = saidOf(rulesTexts);

/** What things are called, for the words. */
export type RuleNames = {
  readonly member: (id: MemberId) => Sayable;
  readonly category: (id: CategoryId) => Sayable;
  readonly record: (id: RecordId) => Sayable;
  readonly contact: (id: ContactId) => Sayable;
  readonly round: (id: RoundId) => Sayable;
  readonly group: (id: GroupId) => Sayable;
  readonly template: (id: TemplateId) => Sayable;
};

/** Which messages a condition is about: "from @dombach.example, with “invoice” in the subject". */
export function conditionInWords(condition: Condition, names: RuleNames): Wording {
  if (!isGroup(condition)) return testInWords(condition, names);
  if (condition.of.length === 0) return condition.kind === "any" ? said("rules.noMessage") : said("rules.everyMessage");
  const parts = condition.of.map((one) => partInWords(one, condition.kind, names));
  if (condition.kind === "all") return { all: parts, by: "comma" };
  const either: Listed = { all: parts, by: "or" };
  return condition.kind === "any" ? either : said("rules.not", { parts: either });
}

// A group within another one stands in brackets, unless it reads the same without them.
function partInWords(part: Condition, within: "all" | "any" | "none", names: RuleNames): Wording {
  const words = conditionInWords(part, names);
  const isPlain =
    !isGroup(part) || part.of.length < 2 || part.kind === "none" || (within !== "all" && part.kind === "any");
  return isPlain ? words : said("rules.inBrackets", { words });
}

/** Which messages a rule is for: its condition, and what it makes an exception of. */
export function whichMessagesInWords(
  { condition, exception }: { readonly condition: Condition; readonly exception: Condition | null },
  names: RuleNames,
): Wording {
  const holds = conditionInWords(condition, names);
  return exception === null ? holds : said("rules.unless", { holds, exception: conditionInWords(exception, names) });
}

/** What a test asks for, as a part of a sentence about a message. */
export function testInWords<Kind extends TestKind>(test: TestOf<Kind>, names: RuleNames): Wording {
  // The table's type ties each test to its words; an index by a union loses that tie.
  return (TESTS[test.kind as Kind] as (test: TestOf<Kind>, names: RuleNames) => Wording)(test, names);
}

/** What of a message made a test hold, in the same words: "from @dombach.example", "“invoice” in the subject". */
export function foundInWords(test: Test, found: string, names: RuleNames): Wording {
  return testInWords(narrowed(test, found), names);
}

function narrowed(test: Test, found: string): Test {
  switch (test.kind) {
    case "address": {
      const domain = found.startsWith("@") ? found.slice(1) : null;
      const one: AddressMatch =
        domain === null ? { kind: "address", address: found as EmailAddress } : { kind: "domain", domain };
      return { ...test, of: [one] };
    }
    case "text":
      return { ...test, match: { how: test.match.how === "is" ? "is" : "phrase", values: [found] } };
    case "list":
      return { ...test, of: [found] };
    case "header":
    case "address-part":
      return test.match.how === "exists" || found === ""
        ? test
        : { ...test, match: { how: "contains", values: [found] } };
    case "reference":
      return { ...test, of: [found as RecordId] };
    case "attachment":
      return { kind: "attachment", name: { how: "is", values: [found] } };
    default:
      return "of" in test
        ? ({ ...test, of: (test.of as readonly unknown[]).filter((one) => String(one ?? "") === found) } as Test)
        : test;
  }
}

const or = (all: readonly Sayable[]): Listed => ({ all, by: "or" });
const quoted = (values: readonly string[]) => or(values.map((value) => said("rules.quoted", { value })));

const KINDS: Readonly<Record<MessageKind, Said>> = {
  person: said("rules.fromAPerson"),
  automatic: said("rules.automatic"),
  bounce: said("rules.aBounce"),
  "delivery-report": said("rules.aDeliveryReport"),
  list: said("rules.fromAList"),
  calendar: said("rules.aCalendarRequest"),
};

const REACHED: Readonly<Record<Reach, Said>> = {
  direct: said("rules.toUsDirectly"),
  copied: said("rules.onlyCopiedToUs"),
  list: said("rules.throughAList"),
};

const WEEKDAYS = [
  said("rules.monday"),
  said("rules.tuesday"),
  said("rules.wednesday"),
  said("rules.thursday"),
  said("rules.friday"),
  said("rules.saturday"),
  said("rules.sunday"),
];

const TESTS: { readonly [Kind in TestKind]: (test: TestOf<Kind>, names: RuleNames) => Wording } = {
  every: () => said("rules.everyMessage"),
  address: ({ where, of }, names) =>
    said("rules.addressed", { where, whom: or(of.map((one) => whomInWords(one, names))) }),
  reach: ({ of }) => or(of.map((one) => REACHED[one])),
  "message-kind": ({ of }) => or(of.map((one) => KINDS[one])),
  opening: ({ isFirst }) => (isFirst ? said("rules.theFirst") : said("rules.anAnswer")),
  text: ({ where, match }) => said("rules.textWith", { how: match.how, where, values: quoted(match.values) }),
  list: ({ of }) => said("rules.throughTheList", { lists: or(of) }),
  attachment: ({ types = [], name, ...size }) => {
    const range = rangeInWords(size);
    const parts: Wording[] = [
      ...(types.length === 0 ? [] : [said("rules.ofType", { types: or(types) })]),
      ...(name === undefined ? [] : [said("rules.named", { how: name.how, values: quoted(name.values) })]),
      ...(range === null ? [] : [range]),
    ];
    if (parts.length === 0) return said("rules.withAnAttachment");
    return said("rules.withAnAttachmentThatIs", { parts: { all: parts, by: "comma" } });
  },
  size: (size) => rangeInWords(size) ?? said("rules.everyMessage"),
  header: ({ names: fields, match }) => said("rules.fieldIs", { fields: or(fields), match: matchInWords(match) }),
  "address-part": ({ names: fields, part, match }) =>
    said("rules.partOfAddressIs", { part, fields: or(fields), match: matchInWords(match) }),
  verified: ({ is }) => (is ? said("rules.verifiedSender") : said("rules.unverifiedSender")),
  open: ({ is }) => (is ? said("rules.withinHours") : said("rules.outsideHours")),
  weekday: ({ of }) => said("rules.onWeekdays", { days: or(of.flatMap((day) => WEEKDAYS[day] ?? [])) }),
  days: ({ from, until }) => {
    if (from === null) return said("rules.untilDay", { until: until ?? "" });
    return until === null ? said("rules.fromDay", { from }) : said("rules.betweenDays", { from, until });
  },
  "date-part": ({ field, part, match }) =>
    field === null
      ? said("rules.partOfArrivalIs", { part, match: matchInWords(match) })
      : said("rules.partOfDateIs", { part, field, match: matchInWords(match) }),
  reference: ({ of }, names) =>
    of.length === 0 ? said("rules.withAnyCode") : said("rules.withTheCode", { records: or(of.map(names.record)) }),
  template: ({ of }, names) => said("rules.begunWith", { templates: or(of.map(names.template)) }),
  standing: ({ of }) => said("rules.standsIn", { standings: or(of.map((one) => STANDING_NAMES[one])) }),
  owner: ({ of }, names) =>
    said("rules.ownedBy", { owners: or(of.map((one) => (one === null ? said("rules.nobody") : names.member(one)))) }),
  "owner-away": () => said("rules.whoseOwnerIsAway"),
  category: ({ of }, names) => said("rules.withTheCategory", { categories: or(of.map(names.category)) }),
  record: ({ of }, names) => said("rules.filedTo", { records: or(of.map(names.record)) }),
  urgency: ({ of }) => said("rules.ofUrgency", { urgencies: or(of.map((one) => URGENCY_NAMES[one])) }),
  age: ({ hours }) => said("rules.begunAgo", { hours }),
  "standing-for": ({ hours }) => said("rules.standingFor", { hours }),
  due: ({ hours }) => said("rules.dueWithin", { hours }),
};

function whomInWords(match: AddressMatch, names: RuleNames): Sayable {
  switch (match.kind) {
    case "address":
      return match.address;
    case "domain":
      return `@${match.domain}`;
    case "contact":
      return names.contact(match.contactId);
    case "contact-category":
      return said("rules.contactWith", { category: names.category(match.categoryId) });
    case "organisation":
      return said("rules.ofOrganisation", { name: match.name });
    case "colleague":
      return said("rules.aColleague");
    case "known":
      return said("rules.somebodyKnown");
    case "unknown":
      return said("rules.somebodyNew");
  }
}

function rangeInWords({ over, under }: { readonly over?: number; readonly under?: number }): Said | null {
  if (over === undefined) return under === undefined ? null : said("rules.under", { size: sizeInWords(under) });
  if (under === undefined) return said("rules.over", { size: sizeInWords(over) });
  return said("rules.betweenSizes", { over: sizeInWords(over), under: sizeInWords(under) });
}

function matchInWords(match: FieldMatch): Said {
  if (match.how === "exists") return said("rules.isThere");
  const values = quoted(match.values);
  if (match.how === "count") return said("rules.countRelates", { relation: match.relation, values });
  if (match.how === "value") return said("rules.relates", { relation: match.relation, values });
  return said("rules.matches", { how: match.how, values });
}
