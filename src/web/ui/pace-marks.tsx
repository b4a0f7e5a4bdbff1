import { paceOf, URGENCY_NAMES, type Urgency } from "../../core/kernel/urgency";

/** Three slanted strokes, as many of them inked as the urgency has pace marks; the sheet draws them. */
export function PaceMarks({ urgency }: { urgency: Urgency }) {
  const name = URGENCY_NAMES[urgency];
  return <span role="img" aria-label={`Urgency: ${name}`} title={name} className={`pace pace-${paceOf(urgency)}`} />;
}
