import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import { domainOf } from "../kernel/email-address";
import { type AddressMatch, type Condition, isGroup, type Test, type TestKind, type TestOf } from "./condition";
import { patternProblem, wordsOf } from "./find-text";
import type { RuleMoment } from "./rule";

const said = saidOf(rulesTexts);

/** What is wrong with a part of a condition; `path` are the places that lead to it from the whole ("0.2"), empty for the whole. */
export type ConditionProblem = { readonly path: string; readonly problem: Said };

export const MAX_VALUES = 200;
export const MAX_VALUE_CHARACTERS = 1_000;
const MAX_DEPTH = 8;
const MAX_TESTS = 200;

/**
 * What is wrong with a condition: parts that ask for nothing, patterns that are none, what can never hold together, and what
 * never holds at the moment at which it is asked (of any where none is given).
 */
export function conditionProblems(condition: Condition, moment: RuleMoment = "sending"): ConditionProblem[] {
  const all = [...problemsAt(condition, moment, [])];
  return all.length > MAX_TESTS ? all.slice(0, MAX_TESTS) : all;
}

function* problemsAt(condition: Condition, moment: RuleMoment, path: readonly number[]): Generator<ConditionProblem> {
  const at = (problem: Said): ConditionProblem => ({ path: path.join("."), problem });
  if (!isGroup(condition)) {
    const problem = testProblem(condition, moment);
    return problem === null ? undefined : yield at(problem);
  }
  if (path.length > MAX_DEPTH) return yield at(said("rules.tooDeep"));
  if (condition.of.length > MAX_TESTS) return yield at(said("rules.tooManyParts", { most: MAX_TESTS }));
  if (condition.of.length === 0) yield at(path.length > 0 ? said("rules.emptyGroup") : said("rules.addWhichMessages"));
  let isSound = true;
  for (const [place, one] of condition.of.entries()) {
    for (const problem of problemsAt(one, moment, [...path, place])) {
      isSound = false;
      yield problem;
    }
  }
  if (isSound && condition.kind === "all") {
    const [contradiction] = contradictionsIn(condition.of);
    if (contradiction !== undefined) yield at(contradiction);
  }
}

function testProblem<Kind extends TestKind>(test: TestOf<Kind>, moment: RuleMoment): Said | null {
  if (test.kind === "template" && moment === "arrival") return said("rules.templatesOnlyOfOurs");
  // The table's type ties each test to what is asked of it; an index by a union loses that tie.
  const problemOf = TEST_PROBLEMS[test.kind as Kind] as ((test: TestOf<Kind>) => Said | null) | undefined;
  if (problemOf !== undefined) return problemOf(test);
  return "of" in test && test.of.length === 0 ? said("rules.sayWhichOnes") : null;
}

// Of the others each names what it asks for.
const TEST_PROBLEMS: { readonly [Kind in TestKind]?: (test: TestOf<Kind>) => Said | null } = {
  text: ({ match }) => matchProblem(match),
  attachment: ({ name, ...size }) => {
    const problem = name === undefined ? null : matchProblem(name);
    return problem ?? (isEmptyRange(size) ? said("rules.noSizeBetween") : null);
  },
  size: ({ over, under }) => {
    if (over === undefined && under === undefined) return said("rules.sayHowLarge");
    return isEmptyRange({ over, under }) ? said("rules.noSizeBetween") : null;
  },
  header: ({ names, match }) => (names.length === 0 ? said("rules.sayWhichField") : matchProblem(match)),
  "address-part": ({ names, match }) => (names.length === 0 ? said("rules.sayWhichField") : matchProblem(match)),
  "date-part": ({ match }) => matchProblem(match),
  days: ({ from, until }) => {
    if (from === null && until === null) return said("rules.sayWhichDays");
    return from !== null && until !== null && from > until ? said("rules.endsBeforeItBegins") : null;
  },
  age: ({ hours }) => (hours > 0 ? null : said("rules.sayHowLong")),
  "standing-for": ({ hours }) => (hours > 0 ? null : said("rules.sayHowLong")),
  due: ({ hours }) => (hours > 0 ? null : said("rules.sayHowLong")),
  reference: () => null,
};

const isEmptyRange = ({
  over = -1,
  under = Number.POSITIVE_INFINITY,
}: {
  over?: number | undefined;
  under?: number | undefined;
}) => under - over < 2;

function matchProblem(match: TestOf<"header">["match"]): Said | null {
  if (match.how === "exists") return null;
  if (match.values.length === 0) return said("rules.enterAValue");
  if (match.values.length > MAX_VALUES) return said("rules.atMostValues", { most: MAX_VALUES });
  const problems = match.values.map((value) => valueProblem(match.how, value));
  return problems.find((problem) => problem !== null) ?? null;
}

function valueProblem(how: TestOf<"header">["match"]["how"], value: string): Said | null {
  if (value.length > MAX_VALUE_CHARACTERS) return said("rules.valueTooLong", { most: MAX_VALUE_CHARACTERS });
  if (how === "words" || how === "phrase") return wordsOf(value).length > 0 ? null : said("rules.isNoWord", { value });
  if (how === "contains" && value === "") return said("rules.enterAValue");
  const problem = how === "pattern" ? patternProblem(value) : null;
  if (problem === "too-large") return said("rules.patternTooLarge", { value });
  return problem === null ? null : said("rules.isNoPattern", { value, problem });
}

/** What can never hold together, in words: of parts that all have to hold. */
function* contradictionsIn(parts: readonly Condition[]): Generator<Said> {
  const tests = parts.flatMap((part) => (isGroup(part) ? (part.kind === "all" ? allOf(part.of) : []) : [part]));
  for (const [at, one] of tests.entries()) {
    for (const other of tests.slice(at + 1)) if (excludes(one, other)) yield said("rules.neverBoth");
  }
  const excluded = parts.flatMap((part) => (isGroup(part) && part.kind === "none" ? part.of : [])).map(asText);
  if ([...parts, ...tests].some((part) => excluded.includes(asText(part)))) yield said("rules.neverAndNot");
}

function allOf(parts: readonly Condition[]): Test[] {
  return parts.flatMap((part) => (isGroup(part) ? (part.kind === "all" ? allOf(part.of) : []) : [part]));
}

const asText = (condition: Condition) => JSON.stringify(condition);

// Of what a message has one only, two that ask for different ones.
function excludes(one: Test, other: Test): boolean {
  if (one.kind !== other.kind) return false;
  switch (one.kind) {
    case "address":
      return (
        one.where === "from" && (other as typeof one).where === "from" && !mayMeet(one.of, (other as typeof one).of)
      );
    case "list":
    case "message-kind":
    case "reach":
    case "standing":
    case "owner":
    case "urgency":
    case "template":
    case "weekday":
      return !(one.of as readonly unknown[]).some((value) => (other as { of: readonly unknown[] }).of.includes(value));
    case "verified":
    case "open":
      return one.is !== (other as typeof one).is;
    case "opening":
      return one.isFirst !== (other as typeof one).isFirst;
    case "days": {
      const { from, until } = other as typeof one;
      return isBefore(one.until, from) || isBefore(until, one.from);
    }
    case "size": {
      const { over = 0, under = Number.POSITIVE_INFINITY } = other as typeof one;
      return isEmptyRange({
        over: Math.max(one.over ?? 0, over),
        under: Math.min(one.under ?? Number.POSITIVE_INFINITY, under),
      });
    }
    default:
      return false;
  }
}

const isBefore = (day: string | null, other: string | null) => day !== null && other !== null && day < other;

// Whether one address can be what both ask for; of contacts and colleagues nobody knows.
function mayMeet(some: readonly AddressMatch[], others: readonly AddressMatch[]): boolean {
  return some.some((one) => others.some((other) => mayBeSame(one, other)));
}

function mayBeSame(one: AddressMatch, other: AddressMatch): boolean {
  if (one.kind === "address" && other.kind === "address") return one.address === other.address;
  if (one.kind === "domain" && other.kind === "domain") return one.domain === other.domain;
  if (one.kind === "address" && other.kind === "domain") return domainOf(one.address) === other.domain;
  if (one.kind === "domain" && other.kind === "address") return one.domain === domainOf(other.address);
  return !((one.kind === "known" && other.kind === "unknown") || (one.kind === "unknown" && other.kind === "known"));
}
