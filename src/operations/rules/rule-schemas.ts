import Joi from "joi";
import { REMINDER_LANGUAGES, TONES } from "../../core/kernel/reminder-style";
import { URGENCIES } from "../../core/kernel/urgency";
import { MESSAGE_KINDS } from "../../core/message/mail-message";
import { MAX_VALUE_CHARACTERS, MAX_VALUES } from "../../core/rules/check-condition";
import {
  ADDRESS_PARTS,
  ADDRESS_PLACES,
  REACHES,
  RELATIONS,
  TEXT_PLACES,
  type TestKind,
} from "../../core/rules/condition";
import { DATE_PARTS } from "../../core/rules/date-parts";
import type { RuleActionKind } from "../../core/rules/rule";
import { STANDINGS } from "../../core/standing/standing";

const text = Joi.string()
  .allow("")
  .max(MAX_VALUE_CHARACTERS * 2);
const texts = Joi.array()
  .items(text)
  .max(MAX_VALUES * 2)
  .required();
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
const addressMatch = (id: Joi.StringSchema) =>
  Joi.alternatives(
    Joi.object({ kind: "address", address: text.required() }),
    Joi.object({ kind: "domain", domain: text.required() }),
    Joi.object({ kind: "contact", contactId: text.required() }),
    Joi.object({ kind: "contact-category", categoryId: id.required() }),
    Joi.object({ kind: "organisation", name: text.required() }),
    ...["colleague", "known", "unknown"].map((kind) => Joi.object({ kind })),
  );

/** What a test of each kind has; `id` is what stands for members and categories. */
export function testSchemas(id: Joi.StringSchema): Readonly<Record<TestKind, Joi.ObjectSchema>> {
  const ids = Joi.array().items(id).max(MAX_VALUES).required();
  return withKinds<TestKind>({
    every: {},
    address: { where: oneOf(ADDRESS_PLACES), of: Joi.array().items(addressMatch(id)).max(MAX_VALUES).required() },
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
    template: { of: ids },
    standing: { of: some(STANDINGS) },
    owner: { of: Joi.array().items(id.allow(null)).max(MAX_VALUES).required() },
    "owner-away": {},
    category: { of: ids },
    record: { of: texts },
    urgency: { of: some(URGENCIES) },
    age: { hours },
    "standing-for": { hours },
    due: { hours },
  });
}

const note = Joi.string().allow("").max(5_000).required();
const days = Joi.number().integer().min(0).max(10_000).allow(null).required();
const workingDays = Joi.number().integer().min(0).max(10_000).required();

/** What an action of each kind has. */
export function actionSchemas(id: Joi.StringSchema): Readonly<Record<RuleActionKind, Joi.ObjectSchema>> {
  return withKinds<RuleActionKind>({
    categorise: { categoryId: id.required(), give: Joi.boolean().required() },
    file: { recordId: note, fields: Joi.object().pattern(Joi.string().max(60), Joi.string().allow("").max(500)) },
    assign: { ownerId: id.required() },
    urgency: {
      urgency: Joi.string()
        .valid(...URGENCIES)
        .required(),
    },
    settle: {},
    bin: {},
    junk: {},
    rest: { workingDays },
    hold: { roundId: id.required() },
    "follow-up": { workingDays, text: note, forMember: id.allow(null).required() },
    expect: { workingDays },
    expire: { workingDays },
    note: { text: note },
    follow: { memberId: id.required() },
    "assign-in-turn": { groupId: id.required() },
    "assign-as-before": { by: oneOf(["person", "record"]) },
    tell: { memberId: id.required() },
    remind: { tone: oneOf(TONES), language: oneOf(REMINDER_LANGUAGES) },
    "ask-report": {},
    answer: { text: note, days },
    "answer-with": { templateId: id.required(), days },
    forward: { to: note },
    redirect: { to: note },
  });
}

function withKinds<Kind extends string>(
  maps: Readonly<Record<Kind, Joi.SchemaMap>>,
): Readonly<Record<Kind, Joi.ObjectSchema>> {
  const schemas = Object.entries<Joi.SchemaMap>(maps).map(([kind, map]) => [
    kind,
    Joi.object({ ...map, kind: Joi.string().required() }),
  ]);
  return Object.fromEntries(schemas) as Record<Kind, Joi.ObjectSchema>;
}
