import { readEmailAddress } from "../kernel/email-address";
import type { AddressMatch, AddressPlace, FieldMatch, Test, TestOf, TextMatch } from "../rules/condition";
import { spacedWords, wordsOfPattern } from "./word-pattern";

const PLACES: Readonly<Record<string, AddressPlace>> = {
  from: "from",
  to: "to",
  cc: "cc",
  "cc,to": "recipient",
  "cc,from,to": "any",
};

/** The test by which people ask for what a test of a field asks for; the test itself where there is no such. */
export function ownTest(test: Test): Test {
  switch (test.kind) {
    case "header":
      return ofHeader(test);
    case "address-part":
      return ofAddresses(test);
    case "date-part":
      return ofArrival(test);
    case "text":
      if (test.where === "subject") return ofHeader({ kind: "header", names: ["subject"], match: test.match });
      return { ...test, where: test.where === "body" ? "parts" : test.where, match: withWords(test.match) };
    default:
      return test;
  }
}

function ofHeader(test: TestOf<"header">): Test {
  const { names, match } = test;
  const [name] = names;
  if (names.length !== 1 || !isOfText(match)) return test;
  if (name === "list-id" && match.how === "contains" && match.isExact === undefined) {
    const lists = match.values.flatMap((value) => /^<([^<>\s]+)>$/.exec(value)?.[1]?.toLowerCase() ?? []);
    return lists.length === match.values.length ? { kind: "list", of: lists } : test;
  }
  if (name !== "subject") return test;
  const found = withWords(match);
  // What has letters beyond ASCII is compared in another way there.
  const isWhole = (value: string) => /^[\x21-\x7e]+(?: [\x21-\x7e]+)*$/.test(value);
  const isAlike =
    found.how === "words" ||
    found.how === "phrase" ||
    ((found.how === "contains" || found.how === "is") && found.values.every(isWhole));
  return isAlike ? { kind: "text", where: "subject", match: found } : test;
}

const isOfText = (match: FieldMatch): match is TextMatch =>
  match.how !== "exists" && match.how !== "count" && match.how !== "value";

function withWords(match: TextMatch): TextMatch {
  const { how, values } = match;
  const spaced = how === "pattern" ? values.map(wordsOfPattern) : values.map(spacedWords);
  if ((how !== "pattern" && how !== "words" && how !== "phrase") || !spaced.every((one) => one !== null)) return match;
  const isOfOneEach = how !== "words" && spaced.every((value) => !value.includes(" "));
  return { how: isOfOneEach || how === "words" ? "words" : "phrase", values: spaced };
}

function ofAddresses(test: TestOf<"address-part">): Test {
  const { names, part, match } = test;
  const where = PLACES[names.toSorted().join(",")];
  if (where === undefined || match.how !== "is" || match.isExact !== undefined) return test;
  const of = match.values.flatMap((value): AddressMatch[] => {
    if (part === "all")
      return [readEmailAddress(value)].flatMap((address) => (address === null ? [] : [{ kind: "address", address }]));
    const isDomain = part === "domain" && readEmailAddress(`somebody@${value}`) !== null;
    return isDomain ? [{ kind: "domain", domain: value.toLowerCase() }] : [];
  });
  return of.length === match.values.length ? { kind: "address", where, of } : test;
}

function ofArrival(test: TestOf<"date-part">): Test {
  const { field, zone, part, match } = test;
  if (field !== null || zone !== null || !("values" in match)) return test;
  const { values } = match;
  if (part === "weekday" && match.how === "is" && values.every((value) => /^[0-6]$/.test(value)))
    // RFC 5260 counts from Sunday.
    return { kind: "weekday", of: values.map((value) => (Number(value) + 6) % 7) };
  const [day, ...more] = values;
  const isDay = part === "date" && match.how === "value" && more.length === 0 && /^\d{4}-\d\d-\d\d$/.test(day ?? "");
  if (!isDay || match.isNumber || day === undefined) return test;
  if (match.relation === "ge") return { kind: "days", from: day, until: null };
  return match.relation === "le" ? { kind: "days", from: null, until: day } : test;
}
