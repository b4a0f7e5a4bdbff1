import { URGENCY_NAMES, type Urgency, urgencyRank } from "../../core/kernel/urgency";
import { uiTexts } from "../../texts/en/ui";
import { useSay } from "./texts/use-say";

/** Three slanted strokes, as many of them inked as the urgency has pace marks; the sheet draws them. */
export function UrgencyMarks({ urgency }: { urgency: Urgency }) {
  const say = useSay(uiTexts);
  return (
    <span
      role="img"
      title={say("ui.urgency", { name: URGENCY_NAMES[urgency] })}
      className={`pace pace-${urgencyRank(urgency)}`}
    />
  );
}
