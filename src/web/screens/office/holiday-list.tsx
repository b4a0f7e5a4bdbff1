import { X } from "lucide-react";
import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { Button } from "../../ui/button";
import { dateOfDay, wordsOfDay } from "../../ui/dates/day-words";
import { useSay } from "../../ui/texts/use-say";
import { DayField } from "../forms/day-field";

type HolidayListProps = {
  /** The days as `YYYY-MM-DD`, in order. */
  readonly days: readonly string[];
  readonly problem: string | undefined;
  readonly mayChange: boolean;
};

/** The holidays of a tray, each to be removed, and a field for one more; posted together, a day a line. */
export function HolidayList({ days, problem, mayChange }: HolidayListProps) {
  const say = useSay(officeTexts, commonTexts);
  const [listed, setListed] = useState(days);
  const [next, setNext] = useState("");
  // Counts what was added: the field for the next begins empty.
  const [added, setAdded] = useState(0);
  const isDay = dateOfDay(next) !== undefined;
  // What was typed and not added is meant as well, or is no day, which the server says.
  const posted = next.trim() === "" ? listed : [...listed, next];
  const add = () => {
    setListed([...new Set([...listed, next])].toSorted());
    setAdded(added + 1);
  };
  return (
    <div className="max-w-80">
      <input type="hidden" name="holidays" value={posted.join("\n")} />
      {listed.length === 0 ? (
        <p className="pb-2 text-soft">{say("common.none")}</p>
      ) : (
        <ul
          aria-label={say("office.holidays")}
          className="mb-2 max-h-52 overflow-y-auto rounded-control border border-rule px-2.5 [scrollbar-width:thin]"
        >
          {listed.map((day) => (
            <li key={day} className="flex items-center border-b border-hair py-0.5 last:border-b-0">
              <span className="flex-1 tabular-nums">{wordsOfDay(day)}</span>
              {mayChange && (
                <button
                  type="button"
                  aria-label={say("office.removeTheHoliday", { day: wordsOfDay(day) })}
                  onClick={() => setListed(listed.filter((one) => one !== day))}
                  className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
                >
                  <X size={14} aria-hidden />
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {problem !== undefined && (
        <p role="alert" className="mb-1 text-sm text-late">
          {problem}
        </p>
      )}
      {mayChange && (
        <div className="flex items-end gap-2">
          <div className="flex-1">
            <DayField key={added} label={say("office.anotherHoliday")} onDay={setNext} problem={undefined} />
          </div>
          <Button className="mb-[22px] h-9" disabled={!isDay || listed.includes(next)} onClick={add}>
            {say("office.addTheHoliday")}
          </Button>
        </div>
      )}
    </div>
  );
}
