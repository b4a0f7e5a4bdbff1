import { type DrawnMark, drawTurnLine, type Span, type TurnLineFacts } from "../../core/turn-line/draw-turn-line";

const HEIGHT = 24;
const BASE = 12;
const MARK = 2.5;

/** The drawing of a conversation's exchange: theirs filled above the line, ours as rings below, the open span to now. */
export function TurnLine({ width = 140, ...facts }: TurnLineFacts & { width?: number }) {
  const line = drawTurnLine(facts, width);
  return (
    <svg
      role="img"
      aria-label={line.sentence}
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="block"
    >
      <line x1={0} x2={width} y1={BASE} y2={BASE} stroke="var(--rule)" />
      <line x1={line.nowX} x2={line.nowX} y1={3} y2={21} stroke="var(--faint)" strokeDasharray="1 2" />
      {line.spans.map((span) => (
        <SpanShape key={`${span.from}-${span.over}`} span={span} />
      ))}
      {line.marks.map((mark, at) => (
        // Marks have no identity but their place: two may share a moment.
        // biome-ignore lint/suspicious/noArrayIndexKey: the list is drawn whole each time
        <MarkShape key={at} mark={mark} />
      ))}
      {line.caret !== null && (
        <path d={`M${line.caret - 3.5} 23h7l-3.5 -5.5z`} fill={line.caret < line.nowX ? "var(--late)" : "var(--act)"} />
      )}
    </svg>
  );
}

function SpanShape({ span }: { span: Span }) {
  const thickness = span.over ? 8 : 4;
  const width = Math.max(span.to - span.from, 2);
  const [x, y] = [span.to - width, BASE - thickness / 2];
  if (span.whose === "us") return <rect x={x} y={y} width={width} height={thickness} fill="var(--ink)" />;
  const strokes = Array.from({ length: Math.ceil((width + thickness) / 3) }, (_, at) => x + at * 3);
  const id = `cut-${Math.round(x * 10)}-${Math.round(width * 10)}-${thickness}`;
  return (
    <g stroke={span.over ? "var(--late)" : "var(--soft)"} strokeWidth={span.over ? 1.7 : 1.3}>
      <clipPath id={id}>
        <rect x={x} y={y} width={width} height={thickness} />
      </clipPath>
      <g clipPath={`url(#${id})`}>
        {strokes.map((start) => (
          <line key={start} x1={start} y1={y + thickness} x2={start + thickness * 0.6} y2={y} />
        ))}
      </g>
    </g>
  );
}

function MarkShape({ mark: { x, kind } }: { mark: DrawnMark }) {
  if (kind === "t") return <circle cx={x} cy={BASE - 5} r={MARK} fill="var(--ink)" />;
  if (kind === "w")
    return <circle cx={x} cy={BASE + 5} r={MARK - 0.4} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.2} />;
  if (kind === "n") return <line x1={x} x2={x} y1={BASE + 2} y2={BASE + 7} stroke="var(--umber)" strokeWidth={1.2} />;
  return (
    <g stroke={kind === "b" ? "var(--late)" : "var(--soft)"} fill="none">
      <circle cx={x} cy={BASE - 5} r={MARK} />
      <line x1={x - 3} x2={x + 3} y1={BASE - 2} y2={BASE - 8} />
    </g>
  );
}
