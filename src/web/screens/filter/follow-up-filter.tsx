import { Link, useLocation } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { filterTexts } from "../../../texts/en/filter";
import { useSay } from "../../ui/texts/use-say";

const LOOK = "h-7 rounded-control px-2 leading-7";
const CHOSEN = "bg-act-soft font-semibold text-act";
const OTHER = "text-soft hover:text-ink";

/** Whose follow-ups are listed, and whether open or done ones. */
export function FollowUpFilter({ everybody, isDone }: { everybody: boolean; isDone: boolean }) {
  const say = useSay(filterTexts, commonTexts);
  const { pathname } = useLocation();
  const to = (whose: boolean, done: boolean) => {
    const params = new URLSearchParams({ ...(whose ? { whose: "everybody" } : {}), ...(done ? { done: "yes" } : {}) });
    return { pathname, search: params.toString() };
  };
  const choices = [
    [say("filter.mine"), to(false, isDone), !everybody],
    [say("filter.everybodyS"), to(true, isDone), everybody],
    [say("common.open"), to(everybody, false), !isDone],
    [say("common.done"), to(everybody, true), isDone],
  ] as const;
  return (
    <nav aria-label={say("filter.whichFollowUps")} className="flex gap-1">
      {choices.map(([name, where, chosen]) => (
        <Link
          key={name}
          to={where}
          aria-current={chosen ? "true" : undefined}
          className={`${LOOK} ${chosen ? CHOSEN : OTHER}`}
        >
          {name}
        </Link>
      ))}
    </nav>
  );
}
