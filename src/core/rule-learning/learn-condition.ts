import type { Condition, Test } from "../rules/condition";
import { type Candidate, candidatesFor, type LearnedMessage, testOf } from "./candidate-tests";
import { both, countOf, countOfBoth, either, type PlaceSet, placeSet, placesOf, without } from "./place-set";

/** A condition that was learned from examples. */
export type LearnedCondition = {
  readonly condition: Condition;
  /** How many of the examples it takes. */
  readonly takes: number;
  /** The other messages that it takes, by their places. */
  readonly others: readonly number[];
};

/** What is learned from. */
export type Lesson = {
  readonly examples: readonly LearnedMessage[];
  /** The newest mail besides. */
  readonly others: readonly LearnedMessage[];
  /** Which of the others people treated as they treated the examples, by their places; null where nobody can tell. */
  readonly treatedAlike: readonly number[] | null;
  /** Which of the others somebody said are not meant, by their places. */
  readonly notMeant?: readonly number[];
};

const MOST_TESTS = 3;
const MOST_VALUES = 6;
const MOST_PARTS = 4;
const BEAM = 24;
const ALTERNATIVES = 3;

// Naming one more value of the same kind says less than naming another kind of thing.
const NEXT_VALUE = 1;
const NEXT_PART = 2.5;
// An example that is not taken was chosen by mistake.
const MISTAKE = Math.log(0.02);
// How often people treat what belongs together alike, and how much one letter counts that they did.
const ALIKE = 0.9;
const TREATED = 0.5;
// What somebody pointed at as not meant outweighs everything that a condition can say for itself.
const NOT_MEANT = 1_000;

/**
 * The conditions that say best what examples have in common, the best first: each takes the examples, and as little else as
 * it can be said shortly.
 *
 * They are weighed as concepts learned from examples are by the size principle (Tenenbaum and Griffiths, Generalization,
 * similarity, and Bayesian inference, Behavioral and Brain Sciences 24, 2001): the examples were drawn from what the
 * condition takes, so that each is the likelier the less it takes; against that stands how much it says (its length in
 * nats). What people did with the other letters that it takes speaks for it or against it.
 */
export function learnConditions(lesson: Lesson): LearnedCondition[] {
  const { examples, others } = lesson;
  if (examples.length === 0) return [];
  const weigh = weighing(lesson);
  const candidates = candidatesFor(examples, others);
  const tests = [...candidates.map(single), ...unions(candidates)];
  const everyone = placeSet(examples.length, examples.keys());
  const parts = conjunctions(tests, everyone, others.length, weigh);
  const whole = [...parts.map((part) => [part]), ...covers(tests, parts, everyone, others.length, weigh)];
  const weighed = whole.map((some) => ({ some, ...weigh(some) })).toSorted((a, b) => b.weight - a.weight);
  // Of those that take what is not meant only where nothing else is to be had.
  const [best] = weighed;
  const meant = weighed.filter(({ weight }) => best !== undefined && weight > best.weight - NOT_MEANT / 2);
  return distinct(meant).map(({ some, taken, found }) => ({
    condition: conditionOf(some),
    takes: countOf(taken),
    others: placesOf(found),
  }));
}

/** Tests of one family, of which any will do. */
type Choice = {
  readonly tests: readonly Candidate[];
  readonly examples: PlaceSet;
  readonly others: PlaceSet;
  readonly cost: number;
};

/** Choices that all have to hold. */
type Part = {
  readonly choices: readonly Choice[];
  readonly examples: PlaceSet;
  readonly others: PlaceSet;
  readonly cost: number;
};

type Weighed = { readonly weight: number; readonly taken: PlaceSet; readonly found: PlaceSet };
type Weigh = (parts: readonly Pick<Part, "examples" | "others" | "cost">[]) => Weighed;

function single(candidate: Candidate): Choice {
  return { tests: [candidate], examples: candidate.examples, others: candidate.others, cost: candidate.cost };
}

function weighing({ examples, others, treatedAlike, notMeant = [] }: Lesson): Weigh {
  const all = examples.length + others.length;
  const excluded = placeSet(others.length, notMeant);
  const alike = treatedAlike === null ? null : placeSet(others.length, treatedAlike);
  const share = alike === null ? 0.5 : Math.min(0.95, Math.max(0.02, countOf(alike) / Math.max(1, others.length)));
  const [speaksFor, speaksAgainst] = [Math.log(ALIKE / share), Math.log((1 - ALIKE) / (1 - share))];
  return (parts) => {
    const taken = parts.map((part) => part.examples).reduce(either);
    const found = parts.map((part) => part.others).reduce(either);
    const [takes, finds] = [countOf(taken), countOf(found)];
    const drawn = -takes * Math.log(takes + finds);
    const mistaken = (examples.length - takes) * (MISTAKE - Math.log(all));
    const length = parts.reduce((sum, { cost }) => sum + cost, 0) + (parts.length - 1) * NEXT_PART;
    const sameTreated = alike === null ? 0 : countOfBoth(found, alike);
    const told = alike === null ? 0 : sameTreated * speaksFor + (finds - sameTreated) * speaksAgainst;
    const wrong = notMeant.length === 0 ? 0 : countOfBoth(found, excluded) * NOT_MEANT;
    return { weight: drawn + mistaken - length + TREATED * told - wrong, taken, found };
  };
}

function isOfPeople(family: Candidate["family"]): boolean {
  return family === "sender" || family === "domain" || family === "list";
}

// Of each family the fewest values that take all examples that any of them takes.
function unions(candidates: readonly Candidate[]): Choice[] {
  const families = [...new Set(candidates.map(({ family }) => family))].filter((family) => family !== "word");
  return families.flatMap((family): Choice[] => {
    // Of people and lists one letter may be the only one of its kind; what one subject says alone is said of that one only.
    const least = isOfPeople(family) ? 1 : 2;
    const some = candidates.filter((one) => one.family === family && countOf(one.examples) >= least);
    if (some.length === 0) return [];
    const chosen: Candidate[] = [];
    let left = some.map(({ examples }) => examples).reduce(either);
    while (chosen.length < MOST_VALUES && countOf(left) > 0) {
      const gain = ({ examples, others }: Candidate) => countOfBoth(examples, left) - Math.log1p(countOf(others)) / 4;
      const best = some
        .filter(({ examples }) => countOfBoth(examples, left) > 0)
        .reduce((a, b) => (gain(b) > gain(a) ? b : a));
      chosen.push(best);
      left = without(left, best.examples);
    }
    const [first, ...more] = chosen;
    if (first === undefined || more.length === 0 || countOf(left) > 0) return [];
    return [
      {
        tests: chosen,
        examples: chosen.map(({ examples }) => examples).reduce(either),
        others: chosen.map(({ others }) => others).reduce(either),
        cost: first.cost + more.reduce((sum, { cost }) => sum + cost * NEXT_VALUE, 0),
      },
    ];
  });
}

// The best conjunctions for some of the examples, by a beam: each step adds one test to the best ones so far.
function conjunctions(tests: readonly Choice[], wanted: PlaceSet, size: number, weigh: Weigh): Part[] {
  const nothing: Part = { choices: [], examples: wanted, others: placeSet(size, []).fill(0xffffffff), cost: 0 };
  const found: { part: Part; weight: number }[] = [];
  let beam: Part[] = [nothing];
  for (let step = 0; step < MOST_TESTS; step += 1) {
    const next = beam.flatMap((part) =>
      tests.flatMap((choice): { part: Part; weight: number }[] => {
        if (part.choices.some((one) => overlaps(one, choice))) return [];
        const examples = both(part.examples, choice.examples);
        if (countOf(examples) === 0) return [];
        const others = both(part.others, choice.others);
        const grown = { choices: [...part.choices, choice], examples, others, cost: part.cost + choice.cost };
        return [{ part: grown, weight: weigh([grown]).weight }];
      }),
    );
    const best = next.toSorted((a, b) => b.weight - a.weight).slice(0, BEAM);
    found.push(...best);
    beam = best.map(({ part }) => part);
  }
  return found
    .toSorted((a, b) => b.weight - a.weight)
    .map(({ part }) => part)
    .slice(0, BEAM * 2);
}

// The same thing twice: a sender and their domain, a phrase and another part of the subject that it holds.
function overlaps(one: Choice, other: Choice): boolean {
  const [a, b] = [one.tests[0]?.family, other.tests[0]?.family];
  if (a !== "phrase" && a === b) return true;
  const people = ["sender", "domain"];
  if (people.includes(a ?? "") && people.includes(b ?? "")) return true;
  return one.tests.some(({ value }) =>
    other.tests.some((test) => ` ${test.value} `.includes(` ${value} `) || ` ${value} `.includes(` ${test.value} `)),
  );
}

// Where examples are of several kinds: the best for some of them, and then for those that are left.
function covers(
  tests: readonly Choice[],
  parts: readonly Part[],
  everyone: PlaceSet,
  size: number,
  weigh: Weigh,
): Part[][] {
  const starts = parts.filter((part) => countOf(part.examples) < countOf(everyone) && isKind(part));
  const byTaken = starts
    .map((part) => ({ part, worth: worthOf(part) }))
    .toSorted((a, b) => b.worth - a.worth)
    .slice(0, 4);
  return byTaken.flatMap(({ part }) => {
    const cover = [part];
    let left = without(everyone, part.examples);
    while (countOf(left) > 0 && cover.length < MOST_PARTS) {
      const narrowed = tests.filter(({ examples }) => countOfBoth(examples, left) > 0);
      const some = conjunctions(
        narrowed.map((choice) => ({ ...choice, examples: both(choice.examples, left) })),
        left,
        size,
        (one) => weigh([...cover, ...one]),
      );
      const best = some.find(isKind);
      if (best === undefined) break;
      cover.push(best);
      left = without(left, best.examples);
    }
    return cover.length < 2 ? [] : [cover];
  });
}

// One example alone is a kind of its own by whom it is from only: what it says nobody else need say again.
function isKind({ examples, choices }: Part): boolean {
  return countOf(examples) > 1 || choices.every(({ tests }) => tests.every(({ family }) => isOfPeople(family)));
}

// A kind of its own among the examples takes several of them, and little else.
function worthOf({ examples, others, cost }: Part): number {
  const takes = countOf(examples);
  return takes * Math.log((takes + 1) / (1 + countOf(others) / 50)) - cost;
}

function conditionOf(parts: readonly Part[]): Condition {
  const each = parts.map(({ choices }): Condition => {
    const tests = choices.map(
      ({ tests: same }): Test =>
        testOf(
          same[0]?.family ?? "word",
          same.map(({ value }) => value),
        ),
    );
    const [only] = tests;
    return only !== undefined && tests.length === 1 ? only : { kind: "all", of: tests };
  });
  const [only] = each;
  return only !== undefined && each.length === 1 ? only : { kind: "any", of: each };
}

const DIFFERENT = 0.05;

// What takes the same examples and nearly the same besides is the same to whoever chooses.
function distinct<One extends Weighed>(weighed: readonly One[]): One[] {
  const kept: One[] = [];
  for (const one of weighed) {
    if (kept.length >= ALTERNATIVES) break;
    const isNew = kept.every((other) => {
      const shared = countOfBoth(one.found, other.found);
      const isOther = 1 - shared / Math.max(1, countOf(either(one.found, other.found))) > DIFFERENT;
      return isOther || countOf(one.taken) !== countOf(other.taken);
    });
    if (isNew) kept.push(one);
  }
  return kept;
}
