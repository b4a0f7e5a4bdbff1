import {
  ADDRESS_PARTS,
  type Condition,
  EVERY_MESSAGE,
  type FieldMatch,
  RELATIONS,
  type TextMatch,
} from "../rules/condition";
import { DATE_PARTS } from "../rules/date-parts";
import { patternProblem } from "../rules/find-text";
import { fieldFinder } from "../rules/test-message";
import { type Given, givenArguments, onlyText, type Signature } from "./arguments";
import { NEVER } from "./normal-form";
import { patternFromPosix } from "./posix-pattern";
import type { ScriptTest, ScriptText } from "./read-script";
import { NoCounterpart, type Place, ScriptFault, said } from "./script-problem";

/** What a place in a script may count on. */
export type Circumstances = {
  /** Throws `ScriptFault` where the script has not required an extension. */
  readonly need: (extension: string, at: Place) => void;
  /** A text with its variables replaced. Throws `NoCounterpart` where their values depend on the message. */
  readonly text: (written: ScriptText) => string;
};

/** The extensions that a script may use here (`ihave`, RFC 5463). */
export const EXTENSIONS: ReadonlySet<string> = new Set([
  "fileinto",
  "envelope",
  "encoded-character",
  "body",
  "copy",
  "date",
  "relational",
  "regex",
  "variables",
  "imap4flags",
  "subaddress",
  "mailbox",
  "vacation",
  "comparator-i;octet",
  "comparator-i;ascii-casemap",
  "comparator-i;ascii-numeric",
  "comparator-i;unicode-casemap",
  "ihave",
]);

const MATCH_TAGS: Signature["tags"] = {
  is: "flag",
  contains: "flag",
  matches: "flag",
  regex: "flag",
  value: "text",
  count: "text",
  comparator: "text",
};
const PART_TAGS: Signature["tags"] = Object.fromEntries(ADDRESS_PARTS.map((part) => [part, "flag"]));
const ZONE_TAGS: Signature["tags"] = { zone: "text", originalzone: "flag" };

type Reads = (test: ScriptTest, circumstances: Circumstances) => Condition;

/** What a test of a script asks for (RFC 5228 section 5 and its extensions). Throws `ScriptFault` or `NoCounterpart`. */
export function readTest(test: ScriptTest, circumstances: Circumstances): Condition {
  const read = Object.hasOwn(TESTS, test.name) ? TESTS[test.name] : undefined;
  if (read === undefined) throw new NoCounterpart(test.at, said("sieve.nothingTests", { name: test.name }));
  return read(test, circumstances);
}

const TESTS: Readonly<Record<string, Reads>> = {
  true: (test) => withoutArguments(test, EVERY_MESSAGE),
  false: (test) => withoutArguments(test, NEVER),
  not: (test, circumstances) => {
    const [only, ...more] = test.tests;
    if (only === undefined || more.length > 0)
      throw new ScriptFault(test.at, said("sieve.wantsOneTest", { name: "not" }));
    const denied = readTest(only, circumstances);
    return { kind: "none", of: denied.kind === "any" ? denied.of : [denied] };
  },
  allof: (test, circumstances) => ({ kind: "all", of: testsIn(test).map((one) => readTest(one, circumstances)) }),
  anyof: (test, circumstances) => ({ kind: "any", of: testsIn(test).map((one) => readTest(one, circumstances)) }),
  header: (test, circumstances) => {
    const given = givenArguments(test, { tags: MATCH_TAGS, positional: ["texts", "texts"] });
    return {
      kind: "header",
      names: fieldNames(given.texts(0), circumstances),
      match: matchIn(given, 1, circumstances),
    };
  },
  address: (test, circumstances) => {
    const given = givenArguments(test, { tags: { ...MATCH_TAGS, ...PART_TAGS }, positional: ["texts", "texts"] });
    return addressed(given, fieldNames(given.texts(0), circumstances), circumstances);
  },
  envelope: (test, circumstances) => {
    circumstances.need("envelope", test.at);
    const given = givenArguments(test, { tags: { ...MATCH_TAGS, ...PART_TAGS }, positional: ["texts", "texts"] });
    const names = given.texts(0).map((written) => {
      const name = circumstances.text(written).toLowerCase();
      if (name !== "from" && name !== "to") throw new NoCounterpart(written.at, said("sieve.noEnvelopePart", { name }));
      return `envelope-${name}`;
    });
    return addressed(given, names, circumstances);
  },
  exists: (test, circumstances) => {
    const given = givenArguments(test, { tags: {}, positional: ["texts"] });
    const each = fieldNames(given.texts(0), circumstances).map(
      (name): Condition => ({ kind: "header", names: [name], match: { how: "exists" } }),
    );
    return { kind: "all", of: each };
  },
  size: (test) => {
    const given = givenArguments(test, { tags: { over: "number", under: "number" }, positional: [] });
    const [over, under] = [given.numberOf("over"), given.numberOf("under")];
    if ((over === null) === (under === null)) throw new ScriptFault(test.at, said("sieve.wantsOverOrUnder"));
    return { kind: "size", ...(over === null ? {} : { over }), ...(under === null ? {} : { under }) };
  },
  body: (test, circumstances) => {
    circumstances.need("body", test.at);
    const given = givenArguments(test, {
      tags: { ...MATCH_TAGS, raw: "flag", text: "flag", content: "texts" },
      positional: ["texts"],
    });
    const isOfPlainText = given.textsOf("content").every((type) => /^text(\/plain)?$/i.test(circumstances.text(type)));
    if (given.has("raw") || !isOfPlainText) throw new NoCounterpart(test.at, said("sieve.onlyTextOfBodies"));
    const match = matchIn(given, 0, circumstances);
    if (match.how === "exists" || match.how === "count" || match.how === "value")
      throw new NoCounterpart(test.at, said("sieve.onlyTextOfBodies"));
    return { kind: "text", where: "parts", match: match.how === "pattern" ? overLines(match) : match };
  },
  date: (test, circumstances) => {
    circumstances.need("date", test.at);
    const given = givenArguments(test, {
      tags: { ...MATCH_TAGS, ...ZONE_TAGS },
      positional: ["text", "text", "texts"],
    });
    const [field = null] = fieldNames(given.texts(0), circumstances);
    const zone = given.has("originalzone") ? "original" : zoneIn(given, circumstances);
    return {
      kind: "date-part",
      field,
      zone,
      part: datePartIn(given, 1, circumstances),
      match: matchIn(given, 2, circumstances),
    };
  },
  currentdate: (test, circumstances) => {
    circumstances.need("date", test.at);
    const given = givenArguments(test, { tags: { ...MATCH_TAGS, zone: "text" }, positional: ["text", "texts"] });
    const part = datePartIn(given, 0, circumstances);
    return {
      kind: "date-part",
      field: null,
      zone: zoneIn(given, circumstances),
      part,
      match: matchIn(given, 1, circumstances),
    };
  },
  // Texts that the script knows are compared here and now (RFC 5229 section 5).
  string: (test, circumstances) => {
    circumstances.need("variables", test.at);
    const given = givenArguments(test, { tags: MATCH_TAGS, positional: ["texts", "texts"] });
    const sources = given.texts(0).map(circumstances.text);
    return constant(fieldFinder(matchIn(given, 1, circumstances))(sources) !== null);
  },
  ihave: (test, circumstances) => {
    circumstances.need("ihave", test.at);
    const given = givenArguments(test, { tags: {}, positional: ["texts"] });
    return constant(given.texts(0).every((extension) => EXTENSIONS.has(circumstances.text(extension))));
  },
};

function withoutArguments(test: ScriptTest, condition: Condition): Condition {
  givenArguments(test, { tags: {}, positional: [] });
  return condition;
}

const constant = (holds: boolean): Condition => (holds ? EVERY_MESSAGE : NEVER);

function testsIn({ name, tests, at }: ScriptTest): readonly ScriptTest[] {
  if (tests.length === 0) throw new ScriptFault(at, said("sieve.wantsTests", { name }));
  return tests;
}

function addressed(given: Given, names: readonly string[], circumstances: Circumstances): Condition {
  const [part = "all", more] = ADDRESS_PARTS.filter((one) => given.has(one));
  if (more !== undefined)
    throw new ScriptFault(given.at, said("sieve.neverBoth", { one: `:${part}`, other: `:${more}` }));
  if (part === "user" || part === "detail") circumstances.need("subaddress", given.at);
  return { kind: "address-part", names, part, match: matchIn(given, 1, circumstances) };
}

function fieldNames(written: readonly ScriptText[], circumstances: Circumstances): string[] {
  return written.map((one) => {
    const name = circumstances.text(one).toLowerCase();
    // RFC 5322 2.2.
    if (!/^[!-9;-~]+$/.test(name)) throw new ScriptFault(one.at, said("sieve.isNoField", { name }));
    return name;
  });
}

function zoneIn(given: Given, circumstances: Circumstances): string | null {
  const written = onlyText(given.textsOf("zone"));
  if (written === null) return null;
  const zone = circumstances.text(written);
  if (!/^[+-]\d{4}$/.test(zone)) throw new ScriptFault(written.at, said("sieve.isNoZone", { zone }));
  return zone;
}

function datePartIn(given: Given, place: number, circumstances: Circumstances): string {
  const [written] = given.texts(place);
  const part = written === undefined ? "" : circumstances.text(written).toLowerCase();
  if (!DATE_PARTS.some((one) => one === part))
    throw new ScriptFault(written?.at ?? given.at, said("sieve.isNoDatePart", { part }));
  return part;
}

const HOWS = ["is", "contains", "matches", "regex", "value", "count"] as const;

// RFC 5228 2.7.1 and 2.7.3, RFC 5231, and the drafts of regex.
function matchIn(given: Given, keys: number, circumstances: Circumstances): FieldMatch {
  const [how = "is", more] = HOWS.filter((one) => given.has(one));
  if (more !== undefined)
    throw new ScriptFault(given.at, said("sieve.neverBoth", { one: `:${how}`, other: `:${more}` }));
  const comparator = comparatorIn(given, circumstances);
  const values = given.texts(keys).map(circumstances.text);
  if (how === "value" || how === "count") {
    circumstances.need("relational", given.at);
    const relation = relationIn(given, how, circumstances);
    return how === "count"
      ? { how, relation, values }
      : { how, relation, isNumber: comparator === "i;ascii-numeric", values };
  }
  if (comparator === "i;ascii-numeric") {
    if (how === "is") return { how: "value", relation: "eq", isNumber: true, values };
    throw new ScriptFault(given.at, said("sieve.comparesWholesOnly", { comparator }));
  }
  const exact = comparator === "i;octet" ? ({ isExact: true } as const) : {};
  if (how === "regex") {
    circumstances.need("regex", given.at);
    const patterns = given.texts(keys).map((written) => patternOf(written, circumstances));
    return { how: "pattern", values: patterns, ...exact };
  }
  // An empty text is in everything that is there.
  if (how === "contains" && values.includes("")) return { how: "exists" };
  return { how: how === "matches" ? "like" : how, values, ...exact };
}

function comparatorIn(given: Given, circumstances: Circumstances): string {
  const written = onlyText(given.textsOf("comparator"));
  if (written === null) return "i;ascii-casemap";
  const comparator = circumstances.text(written);
  if (!EXTENSIONS.has(`comparator-${comparator}`))
    throw new ScriptFault(written.at, said("sieve.isNoComparator", { comparator }));
  // RFC 5228 2.7.3: two of them are always there.
  if (comparator !== "i;octet" && comparator !== "i;ascii-casemap")
    circumstances.need(`comparator-${comparator}`, written.at);
  return comparator;
}

function relationIn(given: Given, tag: "value" | "count", circumstances: Circumstances) {
  const written = onlyText(given.textsOf(tag));
  const name = written === null ? "" : circumstances.text(written).toLowerCase();
  const relation = RELATIONS.find((one) => one === name);
  if (relation === undefined) throw new ScriptFault(written?.at ?? given.at, said("sieve.isNoRelation", { name }));
  return relation;
}

function patternOf(written: ScriptText, circumstances: Circumstances): string {
  const translated = patternFromPosix(circumstances.text(written));
  if ("lacks" in translated)
    throw new NoCounterpart(written.at, said("sieve.patternsLack", { what: translated.lacks }));
  const problem = patternProblem(translated.pattern);
  if (problem === null) return translated.pattern;
  throw new ScriptFault(
    written.at,
    problem === "too-large" ? said("sieve.thePatternIsTooLarge") : said("sieve.isNoPattern", { problem }),
  );
}

// There a dot is any letter, and bodies have ends of lines.
function overLines(match: TextMatch): TextMatch {
  return { ...match, values: match.values.map((value) => (value.includes(".") ? `(?s)${value}` : value)) };
}
