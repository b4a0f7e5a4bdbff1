import { useEffect, useId, useRef, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { frameTexts } from "../../../texts/en/frame";
import { CalendarButton } from "../../ui/dates/calendar-button";
import { dateOfDay, wordsOfDay } from "../../ui/dates/day-words";
import { useSay } from "../../ui/texts/use-say";
import { useDateAnswer } from "./use-date-answer";

type DayFieldProps = {
  readonly label: string;
  /** What it is posted as, as `YYYY-MM-DD`; what is no day is posted as it was typed, for the server to say so. */
  readonly name?: string;
  /** The day that it begins with; empty for none. */
  readonly start?: string;
  /** Called with the day, or with what was typed while that is none. */
  readonly onDay?: (day: string) => void;
  readonly problem: string | undefined;
  readonly required?: boolean;
  readonly autoFocus?: boolean;
};

/** A day, typed in words or figures or clicked in a calendar; what is understood stands below the line. */
export function DayField({ label, name, start = "", onDay, problem, required, autoFocus }: DayFieldProps) {
  const say = useSay(frameTexts);
  const id = useId();
  const [text, setText] = useState(start === "" ? "" : wordsOfDay(start));
  const [chosen, setChosen] = useState(start);
  const read = useReadDay(chosen === "" ? text : "");
  const day = chosen === "" ? read.day : chosen;
  const hear = useRef(onDay);
  hear.current = onDay;
  useEffect(() => hear.current?.(day ?? text), [day, text]);
  const type = (typed: string) => {
    setText(typed);
    setChosen(dateOfDay(typed.trim()) === undefined ? "" : typed.trim());
  };
  // What is wrong with what stands there now is newer than what was wrong with what was posted.
  const said = (text.trim().length > 2 ? read.problem : null) ?? problem;
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {label}
      </label>
      <div className="flex gap-1.5">
        <input
          id={id}
          name={day === null ? name : undefined}
          value={text}
          onChange={(event) => type(event.target.value)}
          placeholder={say("frame.fri4DecTomorrow")}
          autoComplete="off"
          required={required}
          // biome-ignore lint/a11y/noAutofocus: the first field of what was asked for
          autoFocus={autoFocus}
          aria-invalid={said !== undefined}
          aria-describedby={`${id}-said`}
          className="h-9 w-full min-w-0 rounded-control border border-rule bg-paper px-2.5 placeholder:text-soft aria-invalid:border-late"
        />
        {day !== null && name !== undefined && <input type="hidden" name={name} value={day} />}
        <CalendarButton
          label={label}
          day={day}
          onDay={(clicked) => {
            setChosen(clicked);
            setText(wordsOfDay(clicked));
          }}
        />
      </div>
      <p id={`${id}-said`} className="mt-1 min-h-[18px] text-sm text-soft">
        {said !== undefined && <span className="text-late">{said} </span>}
        {day !== null && wordsOfDay(day) !== text && <span>{wordsOfDay(day)}</span>}
      </p>
    </div>
  );
}

type ReadDay = { readonly day: string | null; readonly problem: string | null };

/** The day that a text means, as the server reads it; nothing until it has said. */
function useReadDay(text: string): ReadDay {
  const say = useSay(commonTexts);
  const words = text.trim();
  const query = words === "" ? null : new URLSearchParams({ day: words }).toString();
  const answered = useDateAnswer<ReadDay>(query);
  if (answered === null || answered.asked !== query) return { day: null, problem: null };
  return answered.answer ?? { day: null, problem: say("common.theServerDidNotAnswer") };
}
