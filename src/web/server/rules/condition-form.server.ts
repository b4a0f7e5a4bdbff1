import Joi from "joi";
import { type EmailAddress, readEmailAddress } from "../../../core/kernel/email-address";
import { type ContactId, type RecordId, trustedId } from "../../../core/kernel/ids";
import type { AddressMatch, Condition, Test } from "../../../core/rules/condition";
import { testSchemas } from "../../../operations/index.server";
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

const GROUP = Joi.object({
  kind: Joi.string().valid("all", "any", "none").required(),
  of: Joi.array().items(Joi.object().unknown()).max(300).required(),
});

const TEST_FORMS = testSchemas(ID);
const MAX_DEPTH = 10;
const NOTHING: Condition = { kind: "all", of: [] };

/** Every text in what was posted that may name a record or a contact, to look all of them up at once. */
export function textsNaming(value: unknown): string[] {
  const found: string[] = [];
  JSON.stringify(value, (key, one: unknown) => {
    if (typeof one === "string" && (key === "recordId" || key === "contactId" || /^\d+$/.test(key))) found.push(one);
    return one;
  });
  return found;
}

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
  if (typeof kind !== "string" || !Object.hasOwn(TEST_FORMS, kind)) return wrong();
  const { value, error } = TEST_FORMS[kind as Test["kind"]].validate(posted);
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
