import { demoStories } from "~/demo/build-world";
import { pastStories } from "~/demo/stories-generated";
import type { Deps } from "~/operations/index.server";
import { driftingTray } from "./drifting-tray";
import { madeUpTray } from "./made-up-tray";
import { type Figure, plain } from "./measure";
import { printedScores, type Score, type Stream, scoreProposals, streamOf, toldTray } from "./proposal-scores";
import { speedFigures } from "./proposal-speed";

const SEED = 7;
const WORLD = 3_000;
const LETTERS = 6_000;
const DRIFTING = [1, 2];
const ASKED_EXACT = 0.5;
const ASKED_CORRECTIONS = 0.7;

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
      ...scored
        .filter(({ stream }) => stream.knowable !== undefined)
        .flatMap(({ stream, score }) => qualityFigures(stream.name, score)),
      ...(await speedFigures(deps, url)),
    ],
  };
}

function qualityFigures(name: string, { letters, exact, corrections }: Score): Figure[] {
  const [right, wrong] = [(100 * exact) / letters, corrections / letters];
  const [asked, most] = [100 * ASKED_EXACT, ASKED_CORRECTIONS];
  return [
    plain(`${name}: exactly right with everything accepted`, "%", right, `at least ${asked} %`, right >= asked),
    plain(`${name}: corrections a letter`, "", wrong, `at most ${most}`, wrong <= most),
  ];
}
