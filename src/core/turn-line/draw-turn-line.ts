import { standingTexts } from "../../texts/en/standing";
import { type Said, saidOf } from "../../texts/said";
import { DAY, HOUR } from "../kernel/instant";
import type { StandingKind } from "../standing/standing";
import { ageInWords } from "../time/age-in-words";
import type { Mark, MarkKind } from "./marks";

const said = saidOf(standingTexts);

/** What is drawn: all times in milliseconds of UTC. */
export type TurnLineFacts = {
  readonly marks: readonly Mark[];
  readonly turn: "us" | "them" | "nobody";
  readonly turnSince: number | null;
  readonly standing: StandingKind;
  readonly expectedAt: number | null;
  readonly now: number;
};

export type DrawnMark = { readonly x: number; readonly kind: MarkKind };
export type Span = {
  readonly from: number;
  readonly to: number;
  readonly whose: "us" | "them";
  readonly over: boolean;
};

/** The drawing as numbers: x from 0 to `width`, left to right. */
export type TurnLine = {
  readonly marks: readonly DrawnMark[];
  readonly spans: readonly Span[];
  /** Where an answer is expected; null when nothing is awaited. */
  readonly caret: number | null;
  readonly nowX: number;
  /** The drawing in one sentence, for those who do not see it. */
  readonly sentence: Said;
};

// The last hours and days have most of the room: x falls with the logarithm of the age, down to a year.
const OLDEST = 365 * DAY;
const FINEST = 2 * HOUR;
// The share of the width right of now, for dates to come.
const FUTURE_SHARE = 0.2;
const FURTHEST = 30 * DAY;

function ageShare(age: number, most: number): number {
  return Math.min(1, Math.log1p(Math.max(0, age) / FINEST) / Math.log1p(most / FINEST));
}

/** Where a moment stands on a line of this width. */
export function turnLineX(at: number, now: number, width: number): number {
  const nowX = width * (1 - FUTURE_SHARE);
  return at <= now ? nowX * (1 - ageShare(now - at, OLDEST)) : nowX + (width - nowX) * ageShare(at - now, FURTHEST);
}

/** Marks, open spans and caret for a conversation's turn line, and the sentence that says the same. */
export function drawTurnLine(facts: TurnLineFacts, width: number): TurnLine {
  const x = (at: number) => Math.round(turnLineX(at, facts.now, width) * 10) / 10;
  return {
    marks: facts.marks.map(([at, kind]) => ({ x: x(at), kind })),
    spans: openSpans(facts, x),
    caret: facts.standing === "waiting" && facts.expectedAt !== null ? x(facts.expectedAt) : null,
    nowX: x(facts.now),
    sentence: turnLineSentence(facts),
  };
}

function openSpans(facts: TurnLineFacts, x: (at: number) => number): Span[] {
  const last = facts.marks.findLast(([, kind]) => kind === "t" || kind === "w" || kind === "b");
  const whose = openFor(facts);
  if (last === undefined || whose === null) return [];
  const [from, to, expected] = [x(last[0]), x(facts.now), facts.expectedAt];
  if (whose === "us" || expected === null || expected >= facts.now) return [{ from, to, whose, over: false }];
  const due = Math.max(from, x(expected));
  return [
    { from, to: due, whose, over: false },
    { from: due, to, whose, over: true },
  ];
}

// A decision wins over the mail: settled matters have no open span, and what we decided to wait for is theirs.
function openFor(facts: TurnLineFacts): "us" | "them" | null {
  if (facts.standing === "waiting") return "them";
  if (facts.standing === "our-move") return "us";
  return facts.standing === "to-sort" && facts.turn === "us" ? "us" : null;
}

function turnLineSentence(facts: TurnLineFacts): Said {
  const count = (...kinds: MarkKind[]) => facts.marks.filter(([, kind]) => kinds.includes(kind)).length;
  const told = [
    said("standing.fromThem", { count: count("t") }),
    said("standing.fromUs", { count: count("w") }),
    said("standing.automaticOrBounced", { count: count("m", "b") }),
    said("standing.internal", { count: count("n") }),
  ].filter(({ values }) => values.count !== 0);
  return said("standing.turnLine", { messages: { all: told, by: "comma" }, turn: turnInWords(facts) });
}

function turnInWords(facts: TurnLineFacts): Said {
  const whose = openFor(facts);
  if (whose === null) return said("standing.nothingOpen");
  const { turnSince, expectedAt, now } = facts;
  const turn =
    turnSince === null
      ? said("standing.with", { whose })
      : said("standing.withFor", { whose, age: ageInWords(now - turnSince) });
  const isOver = whose === "them" && expectedAt !== null && expectedAt < now;
  return isOver ? said("standing.andOverdue", { turn }) : turn;
}
