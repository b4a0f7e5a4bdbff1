import Joi from "joi";
import { type EmailAddress, readEmailAddress } from "../../../core/kernel/email-address";
import { type ContactId, type RecordId, trustedId } from "../../../core/kernel/ids";
import { URGENCIES } from "../../../core/kernel/urgency";
import { MESSAGE_KINDS } from "../../../core/message/mail-message";
import { MAX_VALUE_CHARACTERS, MAX_VALUES } from "../../../core/rules/check-condition";
import {
  ADDRESS_PARTS,
  ADDRESS_PLACES,
  type AddressMatch,
  type Condition,
  REACHES,
  RELATIONS,
  TEXT_PLACES,
  type Test,
} from "../../../core/rules/condition";
import { DATE_PARTS } from "../../../core/rules/date-parts";
import { STANDINGS } from "../../../core/standing/standing";
import { ID } from "../base/fields.server";
import { speak } from "../base/say.server";

/** Looks up what is written in a form by what people call it. */
export type NamedThings = {
  readonly record: (code: string) => RecordId | null;
  /** By an address or a name; null where nobody is meant by it, or several are. */
  readonly contact: (text: string) => ContactId | null;
};

/** Takes note of what is wrong with a part of a condition, by the places that lead to it. */
export type NoteProblem = (path: string, problem: string) => void;

const text = Joi.string()
  .allow("")
  .max(MAX_VALUE_CHARACTERS * 2);
const texts = Joi.array()
  .items(text)
  .max(MAX_VALUES * 2)
  .required();
const ids = Joi.array().items(ID).max(MAX_VALUES).required();
const oneOf = (values: readonly string[]) =>
  Joi.string()
    .valid(...values)
    .required();
const some = (values: readonly string[]) =>
  Joi.array()
    .items(Joi.string().valid(...values))
    .max(50)
    .required();
const size = Joi.number().integer().min(0).max(2_000_000_000);
const hours = Joi.number().integer().min(0).max(100_000).required();
const day = Joi.string()
  .pattern(/^\d{4}-\d\d-\d\d$/)
  .allow(null)
  .required();
const fieldName = Joi.string().trim().lowercase().max(100);

const exact = { isExact: Joi.valid(true) };
const textMatch = Joi.object({
  how: oneOf(["words", "phrase", "is", "contains", "like", "pattern"]),
  values: texts,
  ...exact,
});
const fieldMatch = Joi.alternatives(
  textMatch,
  Joi.object({ how: "value", relation: oneOf(RELATIONS), isNumber: Joi.boolean().required(), values: texts }),
  Joi.object({ how: "count", relation: oneOf(RELATIONS), values: texts }),
  Joi.object({ how: "exists" }),
);
const addressMatch = Joi.alternatives(
  Joi.object({ kind: "address", address: text.required() }),
  Joi.object({ kind: "domain", domain: text.required() }),
  Joi.object({ kind: "contact", contactId: text.required() }),
  Joi.object({ kind: "contact-category", categoryId: ID.required() }),
  Joi.object({ kind: "organisation", name: text.required() }),
  ...["colleague", "known", "unknown"].map((kind) => Joi.object({ kind })),
);

const TESTS: Readonly<Record<Test["kind"], Joi.SchemaMap>> = {
  every: {},
  address: { where: oneOf(ADDRESS_PLACES), of: Joi.array().items(addressMatch).max(MAX_VALUES).required() },
  reach: { of: some(REACHES) },
  "message-kind": { of: some(MESSAGE_KINDS) },
  opening: { isFirst: Joi.boolean().required() },
  text: { where: oneOf(TEXT_PLACES), match: textMatch.required() },
  list: { of: Joi.array().items(Joi.string().trim().lowercase().max(300)).max(MAX_VALUES).required() },
  attachment: { types: Joi.array().items(fieldName).max(50), name: textMatch, over: size, under: size },
  size: { over: size, under: size },
  header: { names: Joi.array().items(fieldName).max(50).required(), match: fieldMatch.required() },
  "address-part": {
    names: Joi.array().items(fieldName).max(50).required(),
    part: oneOf(ADDRESS_PARTS),
    match: fieldMatch.required(),
  },
  verified: { is: Joi.boolean().required() },
  open: { is: Joi.boolean().required() },
  weekday: { of: Joi.array().items(Joi.number().integer().min(0).max(6)).max(7).required() },
  days: { from: day, until: day },
  "date-part": {
    field: fieldName.allow(null).required(),
    zone: Joi.string()
      .pattern(/^([+-]\d{4}|original)$/)
      .allow(null)
      .required(),
    part: oneOf(DATE_PARTS),
    match: fieldMatch.required(),
  },
  reference: { of: texts },
  standing: { of: some(STANDINGS) },
  owner: { of: Joi.array().items(ID.allow(null)).max(MAX_VALUES).required() },
  "owner-away": {},
  category: { of: ids },
  record: { of: texts },
  urgency: { of: some(URGENCIES) },
  age: { hours },
  "standing-for": { hours },
};

const GROUP = Joi.object({
  kind: Joi.string().valid("all", "any", "none").required(),
  of: Joi.array().items(Joi.object().unknown()).max(300).required(),
});

const MAX_DEPTH = 10;
const NOTHING: Condition = { kind: "all", of: [] };

/** A posted condition, in which records stand by their codes and contacts by address or name; what is wrong is noted. */
export function readCondition(
  posted: unknown,
  things: NamedThings,
  note: NoteProblem,
  path: readonly number[] = [],
): Condition {
  const wrong = () => {
    note(path.join("."), speak("server.thatIsNothingThatCan"));
    return NOTHING;
  };
  const kind = (posted as { readonly kind?: unknown } | null)?.kind;
  if (kind === "all" || kind === "any" || kind === "none") {
    const { value, error } = GROUP.validate(posted);
    if (error !== undefined || path.length > MAX_DEPTH) return wrong();
    return { kind, of: value.of.map((one: unknown, at: number) => readCondition(one, things, note, [...path, at])) };
  }
  if (typeof kind !== "string" || !Object.hasOwn(TESTS, kind)) return wrong();
  const schema = Joi.object({ ...TESTS[kind as Test["kind"]], kind: Joi.string().required() });
  const { value, error } = schema.validate(posted);
  if (error !== undefined) return wrong();
  return named(value as Test, things, (problem) => note(path.join("."), problem));
}

// What people call a thing is what stands there until it is looked up here.
function named(test: Test, things: NamedThings, note: (problem: string) => void): Test {
  if (test.kind === "address") return { ...test, of: test.of.map((one) => addressOf(one, things, note)) };
  if (test.kind !== "record" && test.kind !== "reference") return test;
  const of = test.of.map((code) => {
    const id = things.record(code.trim().toUpperCase());
    if (id === null) note(speak("rules.thereIsNoRecord", { code }));
    return id ?? code;
  });
  return { ...test, of };
}

function addressOf(match: AddressMatch, things: NamedThings, note: (problem: string) => void): AddressMatch {
  switch (match.kind) {
    case "address": {
      const address = readEmailAddress(match.address);
      if (address === null) note(speak("rules.isNeitherAnAddressNor", { wrong: match.address }));
      return { kind: "address", address: address ?? ("" as EmailAddress) };
    }
    case "domain": {
      const domain = match.domain.trim().toLowerCase().replace(/^@/, "");
      if (readEmailAddress(`somebody@${domain}`) === null)
        note(speak("rules.isNeitherAnAddressNor", { wrong: `@${domain}` }));
      return { kind: "domain", domain };
    }
    case "contact": {
      const id = things.contact(match.contactId);
      if (id === null) note(speak("rules.thereIsNoContact", { text: match.contactId }));
      return { kind: "contact", contactId: id ?? trustedId<ContactId>("") };
    }
    default:
      return match;
  }
}
