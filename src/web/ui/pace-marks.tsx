import { paceOf, URGENCY_NAMES, type Urgency } from "../../core/kernel/urgency";

/** Three slanted strokes, as many of them inked as the urgency has pace marks; the sheet draws them. */
export function PaceMarks({ urgency }: { urgency: Urgency }) {
  return <span role="img" title={`Urgency: ${URGENCY_NAMES[urgency]}`} className={`pace pace-${paceOf(urgency)}`} />;
}
