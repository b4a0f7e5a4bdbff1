import { type StreamEvent, StreamedTray, type StreamLetter } from "~/core/filing/stream";
import type { Script } from "~/demo/script";
import { PEOPLE } from "~/demo/world";
import { type Guess, type Guesser, Knowing, LastDecision, NaiveBayes } from "./baselines";
import type { MadeUp } from "./made-up-tray";

// The last of a stream are scored, after the rest was learned.
const SCORED = 0.3;
const DECILES = 10;
// Of what is surest in so many cases it is said how often it was right.
const COVERED = 0.7;
const KINDS = ["file", "categorise", "assign", "settle"] as const;
type Kind = (typeof KINDS)[number];

type OfKind = {
  said: number;
  right: number;
  /** Of the letters to which somebody gave one: those whose is the first, and among the first three, of all candidates. */
  given: number;
  first: number;
  three: number;
  /** How sure the first of those candidates was, and whether it was right. */
  firsts: { confidence: number; right: boolean }[];
  deciles: { said: number; sum: number; right: number }[];
};

/** What came of accepting everything that is proposed. */
export type Score = {
  readonly letters: number;
  /** With nothing to correct. */
  readonly exact: number;
  /** What had to be added, taken away or put right. */
  readonly corrections: number;
  readonly kinds: Readonly<Record<Kind, OfKind>>;
};

function rightsOf({ decided }: StreamLetter, kind: Kind): readonly string[] {
  switch (kind) {
    case "file":
      return decided.record === null ? [] : [decided.record];
    case "categorise":
      return decided.categories;
    case "assign":
      return decided.owner === null ? [] : [decided.owner];
    case "settle":
      return decided.settledUnanswered ? [""] : [];
  }
}

/** How many things have to be put right where a guess is accepted as it stands. */
function correctionsOf(guess: Guess, { decided }: StreamLetter): number {
  const extra = guess.categories.filter((id) => !decided.categories.includes(id)).length;
  const missing = decided.categories.filter((id) => !guess.categories.includes(id)).length;
  const others = [
    guess.owner !== decided.owner,
    guess.record !== decided.record,
    guess.settledUnanswered !== decided.settledUnanswered,
  ];
  return extra + missing + others.filter(Boolean).length;
}

function nothingSaid(): OfKind {
  const deciles = Array.from({ length: DECILES }, () => ({ said: 0, sum: 0, right: 0 }));
  return { said: 0, right: 0, given: 0, first: 0, three: 0, firsts: [], deciles };
}

/** Learns a stream in order with the very functions of the product, and scores the last part of it. */
export function scoreProposals(events: readonly StreamEvent[]): Score {
  const tray = new StreamedTray();
  const kinds = { file: nothingSaid(), categorise: nothingSaid(), assign: nothingSaid(), settle: nothingSaid() };
  const score = { letters: 0, exact: 0, corrections: 0, kinds };
  const from = scoredFrom(events);
  for (const [at, event] of events.entries()) {
    const proposed = tray.take(event);
    if (proposed === null || event.event !== "conversation" || at < from) continue;
    const of = (kind: Kind) => proposed.proposals.filter((one) => one.kind === kind).map(({ value }) => value);
    const corrections = correctionsOf(
      {
        owner: of("assign")[0] ?? null,
        categories: of("categorise"),
        record: of("file")[0] ?? null,
        settledUnanswered: of("settle").length > 0,
      },
      event,
    );
    score.letters += 1;
    score.corrections += corrections;
    if (corrections === 0) score.exact += 1;
    for (const { kind, value, confidence } of proposed.proposals)
      noteSaid(kinds[kind], confidence, rightsOf(event, kind).includes(value));
    for (const kind of ["file", "categorise", "assign"] as const)
      noteCandidates(kinds[kind], proposed.candidates[kind], rightsOf(event, kind));
  }
  return score;
}

function noteSaid(kind: OfKind, confidence: number, right: boolean): void {
  const decile = kind.deciles[Math.min(DECILES - 1, Math.floor(confidence * DECILES))];
  kind.said += 1;
  if (right) kind.right += 1;
  if (decile === undefined) return;
  decile.said += 1;
  decile.sum += confidence;
  if (right) decile.right += 1;
}

function noteCandidates(
  kind: OfKind,
  candidates: readonly (readonly [value: string, confidence: number])[],
  rights: readonly string[],
): void {
  if (rights.length === 0) return;
  const [value, confidence] = candidates[0] ?? ["", 0];
  const right = rights.includes(value);
  kind.given += 1;
  kind.firsts.push({ confidence, right });
  if (right) kind.first += 1;
  if (candidates.slice(0, 3).some(([one]) => rights.includes(one))) kind.three += 1;
}

/** The share of the surest first candidates of a kind that were right, of so many as are covered, from 0 to 1. */
export function rightOfSurest({ kinds }: Score, kind: Kind): number {
  const { firsts } = kinds[kind];
  const surest = firsts.toSorted((a, b) => b.confidence - a.confidence).slice(0, Math.round(COVERED * firsts.length));
  return surest.filter(({ right }) => right).length / Math.max(1, surest.length);
}

/** Tenths with more than so many cases in which what was said and what came of it lie further apart than is asked. */
export function offTenths({ kinds }: Score, cases: number, apart: number) {
  const tenths = KINDS.flatMap((kind) => kinds[kind].deciles).filter(({ said }) => said > cases);
  const off = tenths.filter(({ said, sum, right }) => Math.abs(sum - right) > apart * said);
  // Two standard errors: of what is said truly, one tenth of twenty lies further off by chance.
  const beyondChance = off.filter(({ said, sum, right }) => {
    const mean = sum / said;
    return Math.abs(sum - right) > 2 * Math.sqrt(said * mean * (1 - mean));
  });
  return { tenths: tenths.length, off: off.length, beyondChance: beyondChance.length };
}

function scoredFrom(events: readonly StreamEvent[]): number {
  const letters = events.flatMap(({ event }, at) => (event === "conversation" ? [at] : []));
  return letters[Math.floor(letters.length * (1 - SCORED))] ?? 0;
}

/** The same of something else that guesses. */
function scoreOf(guesser: Guesser, events: readonly StreamEvent[]): Pick<Score, "letters" | "exact" | "corrections"> {
  const score = { letters: 0, exact: 0, corrections: 0 };
  const from = scoredFrom(events);
  for (const [at, event] of events.entries()) {
    if (event.event !== "conversation") continue;
    if (at >= from) {
      const corrections = correctionsOf(guesser.guess(event), event);
      score.letters += 1;
      score.corrections += corrections;
      if (corrections === 0) score.exact += 1;
    }
    guesser.learn(event);
  }
  return score;
}

const percent = (part: number, whole: number) => `${((100 * part) / Math.max(1, whole)).toFixed(0)} %`;

/** Events to learn from in order; of those that are drawn also what is knowable about each letter. */
export type Stream = {
  readonly name: string;
  readonly events: readonly StreamEvent[];
  readonly knowable?: ReadonlyMap<string, Guess>;
};

/** The scores of a stream as lines to print, beside two that guess without understanding anything, and the best possible. */
export function printedScores({ name, events, knowable }: Stream, score: Score): string[] {
  const whole = (who: string, { letters, exact, corrections }: Pick<Score, "letters" | "exact" | "corrections">) =>
    `${name}, ${who}: exactly right ${percent(exact, letters)}, ${(corrections / letters).toFixed(2)} corrections a letter`;
  return [
    whole("everything proposed", score),
    whole("the sender's last decision", scoreOf(new LastDecision(), events)),
    whole("naive Bayes over all words", scoreOf(new NaiveBayes(), events)),
    ...(knowable === undefined ? [] : [whole("whoever knows all but chance", scoreOf(new Knowing(knowable), events))]),
    ...KINDS.flatMap((kind) => printedKind(name, kind, score)),
  ];
}

function printedKind(name: string, kind: Kind, score: Score): string[] {
  const { letters, kinds } = score;
  const { said, right, given, first, three, deciles } = kinds[kind];
  const told = deciles.map((one) =>
    one.said === 0
      ? "-"
      : `${((100 * one.sum) / one.said).toFixed(0)}/${((100 * one.right) / one.said).toFixed(0)} (${one.said})`,
  );
  return [
    `${name}, ${kind}: ${said} proposed for ${letters} letters, ${percent(right, said)} right; of what was given first ${percent(first, given)}, among three ${percent(three, given)}, first of the surest ${percent(COVERED, 1)} ${percent(rightOfSurest(score, kind), 1)}`,
    `  said/right by decile: ${told.join("  ")}`,
  ];
}

/** A generated tray as a stream: all of its records and colleagues are there from the beginning. */
export function streamOf(tray: readonly MadeUp[]): StreamEvent[] {
  const records = new Set(tray.flatMap(({ record }) => (record === null ? [] : [record])));
  const owners = new Set(tray.map(({ owner }) => owner));
  return [
    ...[...owners].map((id): StreamEvent => ({ event: "member", at: 0, id, name: id })),
    ...[...records].map((id): StreamEvent => ({ event: "record", at: 0, id, code: id, title: "", parent: null })),
    ...tray.map(
      ({ id, from, listId, subject, ownText, categories, record, owner }, at): StreamEvent => ({
        event: "conversation",
        at: at * HOUR_MS,
        id,
        from: { address: from, name: "" },
        to: [],
        listId,
        kind: "person",
        subject,
        text: ownText,
        decided: { owner, categories, record, settledUnanswered: false },
      }),
    ),
  ];
}

const HOUR_MS = 3_600_000;

/** Stories of the made-up world as what the team decided about each, in the order in which they began. */
export function toldTray(scripts: readonly Script[]): MadeUp[] {
  const began = ({ steps: [first] }: Script) =>
    first === undefined ? 0 : "minutesAgo" in first.at ? -first.at.minutesAgo / 1e6 : -first.at.daysAgo;
  const inOrder = scripts.filter(({ tray }) => tray === "office").toSorted((a, b) => began(a) - began(b));
  return inOrder.flatMap(({ who, subject, steps }, at): MadeUp[] => {
    const [first] = steps;
    const owner = steps.findLast((step) => step.kind === "assign");
    const wasDecided = steps.some(({ kind }) => kind === "assign" || kind === "categorise" || kind === "file");
    if (first?.kind !== "they" || !wasDecided) return [];
    const given = (kind: "categorise" | "file") => steps.flatMap((step) => (step.kind === kind ? [step.code] : []));
    return [
      {
        id: String(at),
        from: PEOPLE[who].address,
        listId: null,
        subject,
        ownText: first.text,
        categories: given("categorise"),
        record: given("file")[0] ?? null,
        owner: owner?.kind === "assign" ? owner.to : "nobody",
      },
    ];
  });
}
