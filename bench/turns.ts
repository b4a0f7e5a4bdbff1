import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import { deriveDocket } from "~/core/docket/derive-docket";
import { exchanged } from "../tests/support/exchange";
import type { Figure } from "./measure";

const CONVERSATIONS = 200_000;
const LEAST_A_SECOND = 20_000;

// What an office has: most of it a letter and an answer, some of it longer.
const LINES = [
  "V",
  "V w",
  "V w ?V=30",
  "V w V w",
  "V V w",
  "V w ?V V",
  "L",
  "V! V w",
  "V w ?V+T V T w",
  "V w V# w V kept w",
];

const LOOKS = 40;

/** How fast turns, expectations and standings are worked out anew in the core alone, and what memory that takes. */
export function turnsFigures(): Figure[] {
  const facts = LINES.map(exchanged);
  // What is left once the garbage is gone: what a young heap has not yet got round to collecting is none of it.
  setFlagsFromString("--expose-gc");
  const collect: () => void = runInNewContext("gc");
  // The most of each half: what piles up makes the second one higher.
  const most = [0, 0];
  let spent = 0;
  for (let look = 0; look < LOOKS; look += 1) {
    const began = performance.now();
    for (let at = 0; at < CONVERSATIONS / LOOKS; at += 1) {
      const one = facts[at % facts.length];
      if (one !== undefined) deriveDocket(one);
    }
    spent += performance.now() - began;
    collect();
    const half = look < LOOKS / 2 ? 0 : 1;
    most[half] = Math.max(most[half] ?? 0, process.memoryUsage().heapUsed);
  }
  const rate = CONVERSATIONS / (spent / 1_000);
  const grown = (most[1] ?? 0) - (most[0] ?? 0);
  const none = { floor: Number.NaN, floorName: "", ratio: Number.NaN };
  return [
    {
      name: `dockets of ${CONVERSATIONS.toLocaleString("en")} conversations worked out anew, in the core`,
      unit: "a second",
      measured: rate,
      ...none,
      asked: `at least ${LEAST_A_SECOND.toLocaleString("en")}`,
      holds: rate >= LEAST_A_SECOND,
    },
    {
      name: "memory that the second half takes beyond the first",
      unit: "MB",
      measured: grown / 1e6,
      ...none,
      asked: "bounded: at most 20",
      holds: grown <= 20e6,
    },
  ];
}
