import { Link, useLocation } from "react-router";
import { shellTexts } from "../../../texts/en/shell";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** For who is back, until she has read it: where she finds what happened; for who is away, that it goes on. */
export function AbsenceLine() {
  const say = useSay(shellTexts);
  const { tray, absenceSummary } = useTray();
  const { pathname } = useLocation();
  const [first] = absenceSummary;
  const to = first === undefined ? "" : `/${tray.slug}/absence-summary/${first.id}`;
  if (first === undefined || pathname === to) return null;
  return (
    <p
      role="status"
      className="mx-4 mb-1.5 flex items-center gap-3 border-l-2 border-act bg-act-soft px-3 py-1 text-sm"
    >
      {first.isOver ? say("shell.welcomeBack") : say("shell.youAreAwayUntilWhat", { until: first.until })}
      <Link to={to} className="font-semibold text-act hover:underline">
        {say("shell.whatHappenedWhileYouWere")}
      </Link>
    </p>
  );
}
