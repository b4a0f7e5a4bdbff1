import { paceOf, URGENCY_NAMES, type Urgency } from "../../core/kernel/urgency";

const STROKES = [1, 2, 3] as const;

/** Three slanted strokes, as many of them inked as the urgency has pace marks. */
export function PaceMarks({ urgency }: { urgency: Urgency }) {
  const pace = paceOf(urgency);
  return (
    <svg
      role="img"
      aria-label={`Urgency: ${URGENCY_NAMES[urgency]}`}
      width="19"
      height="12"
      viewBox="0 0 19 12"
      strokeWidth="3"
      className="block"
    >
      <title>{URGENCY_NAMES[urgency]}</title>
      {STROKES.map((stroke) => (
        <line
          key={stroke}
          x1={stroke * 5.5 - 3.5}
          y1="11.5"
          x2={stroke * 5.5 + 0.5}
          y2="0.5"
          stroke={stroke <= pace ? "var(--ink)" : "var(--rule)"}
        />
      ))}
    </svg>
  );
}
