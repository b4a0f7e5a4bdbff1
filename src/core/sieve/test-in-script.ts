import type { Said } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import {
  type AddressMatch,
  type AddressPlace,
  type Condition,
  type FieldMatch,
  isGroup,
  type Test,
  type TestOf,
  type TextMatch,
} from "../rules/condition";
import { testInWords } from "../rules/condition-in-words";
import { patternInPosix } from "./posix-pattern";
import { said } from "./script-problem";
import { patternOfWords } from "./word-pattern";
import { WRITTEN_NAMES } from "./written-names";

/** What a mail server has no words for. */
export class Lacking extends Error {
  constructor(readonly lacks: Said) {
    super();
  }
}

/** Takes note of an extension that is needed. */
export type Requires = (extension: string) => void;

/** A text in a script (RFC 5228 2.4.2). */
export function quoted(text: string): string {
  return `"${text.replace(/["\\]/g, "\\$&")}"`;
}

/** A condition in its normal form as a test of RFC 5228. Throws `Lacking` for what there is no such test for. */
export function testInScript(condition: Condition, requires: Requires): string {
  if (!isGroup(condition)) return inScript(condition, requires);
  const { kind, of } = condition;
  const [only] = of;
  if (only === undefined) return kind === "any" ? "false" : "true";
  if (kind === "none" && of.length === 1) return `not ${testInScript(only, requires)}`;
  const parts = of.map((one) => testInScript(one, requires));
  if (kind === "none") return `not ${together("anyof", parts)}`;
  return together(kind === "all" ? "allof" : "anyof", parts);
}

function together(how: "allof" | "anyof", parts: readonly string[]): string {
  const [only = ""] = parts;
  return parts.length === 1 ? only : `${how} (${parts.join(", ")})`;
}

function inScript(test: Test, requires: Requires): string {
  switch (test.kind) {
    case "every":
      return "true";
    case "address":
      return addressInScript(test);
    case "list":
      return `header :contains "list-id" ${listed(test.of.map((id) => `<${id}>`))}`;
    case "text":
      return textInScript(test, requires);
    case "size":
      return sizeInScript(test);
    case "header":
      if (test.match.how === "exists") return existsInScript(test.names);
      return headerInScript(test.names, comparison(test.match, test, requires));
    case "address-part":
      return addressPartInScript(test, requires);
    case "weekday":
      requires("date");
      // RFC 5260 counts from Sunday.
      return `currentdate :is "weekday" ${listed(test.of.map((day) => String((day + 1) % 7)))}`;
    case "days":
      return daysInScript(test, requires);
    case "date-part":
      return datePartInScript(test, requires);
    default:
      throw lacking(test);
  }
}

const lacking = (test: Test) => new Lacking(said("sieve.noServerAsks", { what: testInWords(test, WRITTEN_NAMES) }));

function listed(texts: readonly string[]): string {
  const [only = ""] = texts;
  return texts.length === 1 ? quoted(only) : `[${texts.map(quoted).join(", ")}]`;
}

const FIELDS: Readonly<Record<AddressPlace, string>> = {
  from: '"from"',
  to: '"to"',
  cc: '"cc"',
  recipient: '["to", "cc"]',
  any: '["from", "to", "cc"]',
};

function addressInScript(test: TestOf<"address">): string {
  // Those of one kind that stand beside each other are one test.
  const runs: { readonly part: string; readonly keys: string[] }[] = [];
  for (const one of test.of) {
    const [part, key] = partAndKey(one);
    if (part === null) throw lacking({ ...test, of: [one] });
    const last = runs.at(-1);
    if (last?.part === part) last.keys.push(key);
    else runs.push({ part, keys: [key] });
  }
  return together(
    "anyof",
    runs.map(({ part, keys }) => `address ${part} :is ${FIELDS[test.where]} ${listed(keys)}`),
  );
}

function partAndKey(match: AddressMatch): readonly [part: string, key: string] | readonly [part: null, key: null] {
  if (match.kind === "address") return [":all", match.address];
  return match.kind === "domain" ? [":domain", match.domain] : [null, null];
}

function textInScript(test: TestOf<"text">, requires: Requires): string {
  const { where, match } = test;
  if (where !== "subject" && where !== "body" && where !== "parts") throw lacking(test);
  if (where !== "subject") requires("body");
  const behind = (how: string, keys: string) =>
    where === "subject" ? `header ${how} "subject" ${keys}` : `body :text ${how} ${keys}`;
  if (match.how !== "words" && match.how !== "phrase") {
    const { how, keys } = comparison(match, test, requires);
    return behind(how, keys);
  }
  requires("regex");
  const pattern = (words: string) => {
    const made = patternOfWords(words);
    if (made === null) throw lacking(test);
    return made;
  };
  if (match.how === "phrase") return behind(":regex", listed(match.values.map(pattern)));
  const each = match.values.map((value) => value.split(" ").map((word) => behind(":regex", quoted(pattern(word)))));
  return together(
    "anyof",
    each.map((words) => together("allof", words)),
  );
}

function sizeInScript({ over, under }: TestOf<"size">): string {
  const bounds = [
    ...(over === undefined ? [] : [`size :over ${over}`]),
    ...(under === undefined ? [] : [`size :under ${under}`]),
  ];
  return together("allof", bounds);
}

// RFC 5228 5.5: of several fields all have to be there; here any will do.
function existsInScript(names: readonly string[]): string {
  return together(
    "anyof",
    names.map((name) => `exists ${quoted(name)}`),
  );
}

function headerInScript(names: readonly string[], { how, keys }: Comparison): string {
  return `header ${how} ${listed(names)} ${keys}`;
}

function addressPartInScript(test: TestOf<"address-part">, requires: Requires): string {
  const { names, part, match } = test;
  if (part === "user" || part === "detail") requires("subaddress");
  const ofEnvelope = names.filter((name) => name.startsWith("envelope-"));
  if (ofEnvelope.length > 0 && ofEnvelope.length < names.length) throw lacking(test);
  if (ofEnvelope.length > 0) requires("envelope");
  const fields = names.map((name) => name.replace(/^envelope-/, ""));
  const { how, keys } = comparison(match, test, requires);
  return `${ofEnvelope.length > 0 ? "envelope" : "address"} :${part} ${how} ${listed(fields)} ${keys}`;
}

function daysInScript({ from, until }: TestOf<"days">, requires: Requires): string {
  requires("date");
  requires("relational");
  const bound = (relation: string, day: string | null) =>
    day === null ? [] : [`currentdate :value "${relation}" "date" ${quoted(day)}`];
  return together("allof", [...bound("ge", from), ...bound("le", until)]);
}

function datePartInScript(test: TestOf<"date-part">, requires: Requires): string {
  const { field, zone, part, match } = test;
  requires("date");
  const { how, keys } = comparison(match, test, requires);
  const clock = zone === null ? "" : zone === "original" ? ":originalzone " : `:zone ${quoted(zone)} `;
  if (field === null && zone === "original") throw lacking(test);
  const whose = field === null ? "currentdate" : "date";
  return `${whose} ${clock}${how} ${field === null ? "" : `${quoted(field)} `}${quoted(part)} ${keys}`;
}

/** How values are compared, and the values. */
type Comparison = { readonly how: string; readonly keys: string };

function comparison(match: FieldMatch, test: Test, requires: Requires): Comparison {
  // An empty text is in everything that is there.
  if (match.how === "exists") return { how: ":contains", keys: '""' };
  const keys = listed(match.values);
  switch (match.how) {
    case "value":
    case "count": {
      requires("relational");
      const isNumber = match.how === "count" || match.isNumber;
      if (isNumber) requires("comparator-i;ascii-numeric");
      return { how: `:${match.how} "${match.relation}"${isNumber ? ' :comparator "i;ascii-numeric"' : ""}`, keys };
    }
    case "is":
    case "contains":
      return { how: `:${match.how}${exactly(match)}`, keys };
    case "like":
      return { how: `:matches${exactly(match)}`, keys };
    case "pattern": {
      requires("regex");
      const patterns = match.values.map((value) => {
        const made = patternInPosix(value);
        if ("lacks" in made) throw lacking(test);
        return made.pattern;
      });
      return { how: `:regex${exactly(match)}`, keys: listed(patterns) };
    }
    case "words":
    case "phrase":
      throw lacking(test);
    default:
      return assertNever(match);
  }
}

const exactly = ({ isExact }: TextMatch) => (isExact === true ? ' :comparator "i;octet"' : "");
