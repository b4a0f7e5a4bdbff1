import type { MonthCount } from "../../../core/time/count-by-month";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";

const SHOWN = 12;

type Month = MonthCount & {
  /** How many of them were taken back. */
  readonly undone?: number;
};

/** How many there were in each of the last months that had any, as small bars with the first and the last month named. */
export function MonthBars({ months }: { months: readonly Month[] }) {
  const say = useSay(rulesTexts);
  const shown = months.slice(-SHOWN);
  const most = Math.max(...shown.map(({ count }) => count));
  const named = (month: string, form: "short-month" | "month-of-year") =>
    say({ at: Date.parse(`${month}-15`), zone: "UTC", form });
  const [first, last] = [shown[0], shown.at(-1)];
  if (first === undefined || last === undefined) return null;
  return (
    <div className="w-fit">
      <ol aria-label={say("rules.byMonth")} className="flex h-8 items-end gap-0.5">
        {shown.map(({ month, count, undone = 0 }) => {
          const words = say("rules.inMonth", { month: named(month, "month-of-year"), count, undone });
          return (
            <li
              key={month}
              title={words}
              style={{ height: `${(count / most) * 100}%` }}
              className="flex min-h-px w-3 flex-col justify-end bg-soft"
            >
              <span className="sr-only">{words}</span>
              <span aria-hidden style={{ height: `${(undone / count) * 100}%` }} className="bg-late" />
            </li>
          );
        })}
      </ol>
      <p aria-hidden className="flex justify-between gap-2 text-sm text-soft">
        <span>{named(first.month, "short-month")}</span>
        {last !== first && <span>{named(last.month, "short-month")}</span>}
      </p>
    </div>
  );
}
