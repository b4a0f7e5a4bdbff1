import { peopleTexts } from "../../../texts/en/people";
import { useSay } from "../../ui/texts/use-say";

type Part = { readonly from: string; readonly to: string };
/** A day of a week as its form has it: open from and to, with a break; null for one off. */
export type Open = (Part & { readonly pause: Part | null }) | null;

const WEEKDAYS = [
  "people.monday",
  "people.tuesday",
  "people.wednesday",
  "people.thursday",
  "people.friday",
  "people.saturday",
  "people.sunday",
] as const;

type WeekFieldsProps = {
  /** Monday first; null for a day off. */
  readonly week: readonly Open[];
  readonly problems: Readonly<Record<string, string>>;
};

/** The hours of a week, a line for each day. */
export function WeekFields({ week, problems }: WeekFieldsProps) {
  const say = useSay(peopleTexts);
  return (
    <ul className="mt-1.5">
      {WEEKDAYS.map((name, day) => (
        <Weekday key={name} name={say(name)} day={day} open={week[day] ?? null} problem={problems[`day-${day}`]} />
      ))}
    </ul>
  );
}

type WeekdayProps = {
  readonly name: string;
  readonly day: number;
  readonly open: Open;
  readonly problem: string | undefined;
};

const TIME =
  "h-8 w-[68px] rounded-control border border-rule bg-paper px-2 text-center tabular-nums disabled:opacity-60 aria-invalid:border-late";

function Weekday({ name, day, open, problem }: WeekdayProps) {
  const say = useSay(peopleTexts);
  const problemId = problem === undefined ? undefined : `day-${day}-problem`;
  return (
    <li className="border-b border-hair py-1">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex w-32 items-center gap-2">
          <input type="checkbox" name={`open-${day}`} defaultChecked={open !== null} className="size-4 accent-act" />
          {name}
        </label>
        <Time
          label={say("people.nameFrom", { name })}
          name={`from-${day}`}
          time={open?.from ?? "08:00"}
          problemId={problemId}
        />
        <span className="text-soft">{say("people.to")}</span>
        <Time
          label={say("people.nameTo", { name })}
          name={`to-${day}`}
          time={open?.to ?? "17:00"}
          problemId={problemId}
        />
        <span className="flex items-center gap-2">
          <span className="text-sm sm:pl-2 text-soft">{say("people.break")}</span>
          <Time
            label={say("people.breakFrom", { name })}
            name={`pause-from-${day}`}
            time={open?.pause?.from ?? ""}
            problemId={problemId}
          />
          <Time
            label={say("people.breakTo", { name })}
            name={`pause-to-${day}`}
            time={open?.pause?.to ?? ""}
            problemId={problemId}
          />
        </span>
      </div>
      {problem !== undefined && (
        <p id={problemId} className="mt-0.5 text-sm text-late">
          {problem}
        </p>
      )}
    </li>
  );
}

type TimeProps = {
  readonly label: string;
  readonly name: string;
  readonly time: string;
  /** What says that it is wrong; undefined when it is not. */
  readonly problemId: string | undefined;
};

function Time({ label, name, time, problemId }: TimeProps) {
  return (
    <input
      inputMode="numeric"
      maxLength={5}
      placeholder="–"
      name={name}
      aria-label={label}
      aria-invalid={problemId !== undefined}
      aria-describedby={problemId}
      defaultValue={time}
      className={TIME}
    />
  );
}
