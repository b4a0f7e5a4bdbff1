import {
  type DrawnMark,
  drawTurnLine,
  type Span,
  type TurnLine as TurnLineDrawing,
  type TurnLineFacts,
} from "../../core/turn-line/draw-turn-line";
import { standingTexts } from "../../texts/en/standing";
import { useSay } from "./texts/use-say";

// As the sheet has it.
const WIDTH = 140;
const BASE = 12;

/**
 * The drawing of a conversation's exchange: theirs filled above the line, ours as rings below, the open span to now. One path
 * for each look, which the sheet has: a list has fifty of these drawings, and each is sent with it.
 */
export function TurnLine({ width = WIDTH, ...facts }: TurnLineFacts & { width?: number }) {
  const say = useSay(standingTexts);
  const line = drawTurnLine(facts, width);
  return (
    <svg role="img" aria-label={say(line.sentence)} className="turns" style={width === WIDTH ? undefined : { width }}>
      {pathsOf(line).map(([look, d]) => (
        <path key={look} className={look} d={d} />
      ))}
    </svg>
  );
}

const dots = (marks: readonly DrawnMark[], y: number) => marks.map(({ x }) => `M${x} ${y}h0`).join("");
const crossed = (marks: readonly DrawnMark[]) =>
  marks.map(({ x }) => `M${short(x - 2.5)} 7a2.5 2.5 0 1 0 5 0a2.5 2.5 0 1 0-5 0M${short(x - 3)} 10l6-6`).join("");

function pathsOf({ marks, spans, caret, nowX }: TurnLineDrawing): (readonly [look: string, d: string])[] {
  const of = (kind: DrawnMark["kind"]) => marks.filter((mark) => mark.kind === kind);
  const ours = spans.filter(({ whose }) => whose === "us");
  const theirs = (over: boolean) => spans.filter((span) => span.whose === "them" && span.over === over);
  const drawn = [
    ["ours", lines(ours)],
    ["theirs", lines(theirs(false))],
    ["theirs late", lines(theirs(true))],
    ["they", dots(of("t"), BASE - 5)],
    ["we", dots(of("w"), BASE + 5)],
    ["we-within", dots(of("w"), BASE + 5)],
    [
      "note",
      of("n")
        .map(({ x }) => `M${x} ${BASE + 2}v5`)
        .join(""),
    ],
    ["machine", crossed(of("m"))],
    ["machine late", crossed(of("b"))],
    [
      caret !== null && caret < nowX ? "caret late" : "caret",
      caret === null ? "" : `M${short(caret - 3.5)} 23h7l-3.5-5.5z`,
    ],
  ] as const;
  return drawn.filter(([, d]) => d !== "");
}

// Whatever is short is still to be seen.
const lines = (spans: readonly Span[]) =>
  spans.map(({ from, to }) => `M${short(Math.min(from, to - 2))} ${BASE}H${short(to)}`).join("");
const short = (x: number) => Math.round(x * 10) / 10;
