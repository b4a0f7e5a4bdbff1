import { demoStories } from "~/demo/build-world";
import { pastStories } from "~/demo/stories-generated";
import type { Deps } from "~/operations/index.server";
import { driftingTray } from "./drifting-tray";
import { madeUpTray } from "./made-up-tray";
import { type Figure, plain } from "./measure";
import {
  offTenths,
  printedScores,
  rightOfSurest,
  type Score,
  type Stream,
  scoreProposals,
  streamOf,
  toldTray,
} from "./proposal-scores";
import { speedFigures } from "./proposal-speed";

const SEED = 7;
const WORLD = 3_000;
const LETTERS = 6_000;
const DRIFTING = [1, 2, 5];
const ASKED_EXACT = 0.5;
const ASKED_CORRECTIONS = 0.7;
const ASKED_RECORDS = 0.97;
const ASKED_OWNERS = 0.85;
const ASKED_TENTHS = { cases: 100, apart: 0.04 };

/** How good proposals are, in the demo's world and in generated trays, and how long one takes from the database. */
export async function proposalFigures(deps: Deps, url: string): Promise<{ figures: Figure[]; lines: string[] }> {
  const streams: readonly Stream[] = [
    { name: "the demo", events: streamOf(toldTray(demoStories())) },
    { name: `the demo's world, ${WORLD} conversations`, events: streamOf(toldTray(pastStories(WORLD, SEED))) },
    { name: "a generated tray that stays as it is", events: streamOf(madeUpTray(LETTERS, SEED)) },
    ...DRIFTING.map((seed) => ({ name: `an office that changes, ${seed}`, ...driftingTray(LETTERS, seed) })),
  ];
  const scored = streams.map((stream) => ({ stream, score: scoreProposals(stream.events) }));
  return {
    lines: scored.flatMap(({ stream, score }) => printedScores(stream, score)),
    figures: [
      ...qualityFigures(scored.flatMap(({ stream, score }) => (stream.knowable === undefined ? [] : [score]))),
      ...(await speedFigures(deps, url)),
    ],
  };
}

/** What is asked of offices that change: of them together, as one of them is off by a point by chance. */
function qualityFigures(scores: readonly Score[]): Figure[] {
  const mean = (figures: readonly number[]) => figures.reduce((sum, one) => sum + one, 0) / figures.length;
  const atLeast = (what: string, shares: readonly number[], asked: number) => {
    const [least, most] = [Math.min(...shares), Math.max(...shares)].map((share) => (100 * share).toFixed(1));
    return plain(
      `${scores.length} offices that change: ${what}, ${least} to ${most} %, in the mean`,
      "%",
      100 * mean(shares),
      `at least ${100 * asked} %`,
      mean(shares) >= asked,
    );
  };
  const corrections = mean(scores.map((score) => score.corrections / score.letters));
  const tenths = scores.map((score) => offTenths(score, ASKED_TENTHS.cases, ASKED_TENTHS.apart));
  const sum = (of: (one: (typeof tenths)[number]) => number) => tenths.reduce((all, one) => all + of(one), 0);
  const beyondChance = sum((one) => one.beyondChance);
  return [
    atLeast(
      "exactly right with everything accepted",
      scores.map(({ exact, letters }) => exact / letters),
      ASKED_EXACT,
    ),
    plain("corrections a letter", "", corrections, `at most ${ASKED_CORRECTIONS}`, corrections <= ASKED_CORRECTIONS),
    atLeast(
      "records right of the surest 70 %",
      scores.map((score) => rightOfSurest(score, "file")),
      ASKED_RECORDS,
    ),
    atLeast(
      "owners right of the surest 70 %",
      scores.map((score) => rightOfSurest(score, "assign")),
      ASKED_OWNERS,
    ),
    plain(
      `of ${sum((one) => one.tenths)} tenths with more than ${ASKED_TENTHS.cases} cases ${sum((one) => one.off)} lie more than ${100 * ASKED_TENTHS.apart} points off, more than chance explains`,
      "tenths",
      beyondChance,
      "at most one of twenty",
      beyondChance <= Math.ceil(sum((one) => one.tenths) / 20),
    ),
  ];
}
