import { Link, useLocation } from "react-router";

const LOOK = "h-7 rounded-control px-2 leading-7";
const CHOSEN = "bg-act-soft font-semibold text-act";
const OTHER = "text-soft hover:text-ink";

/** Whose follow-ups are listed, and whether open or done ones. */
export function FollowUpFilter({ everybody, isDone }: { everybody: boolean; isDone: boolean }) {
  const { pathname } = useLocation();
  const to = (whose: boolean, done: boolean) => {
    const params = new URLSearchParams({ ...(whose ? { whose: "everybody" } : {}), ...(done ? { done: "yes" } : {}) });
    return { pathname, search: params.toString() };
  };
  const choices = [
    ["Mine", to(false, isDone), !everybody],
    ["Everybody's", to(true, isDone), everybody],
    ["Open", to(everybody, false), !isDone],
    ["Done", to(everybody, true), isDone],
  ] as const;
  return (
    <nav aria-label="Which follow-ups" className="flex gap-1">
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
