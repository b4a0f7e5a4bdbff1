import type { SaysView } from "../server/says-view.server";
import type { Draft } from "./kept-draft";

type DraftSaysProps = {
  readonly says: SaysView;
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
};

const OFFER = "text-act underline-offset-2 hover:underline";

/** What the text asks and promises, and what could be made of that: a reply to wait for, a follow-up for oneself. */
export function DraftSays({ says: { asks, promises, encloses }, draft, change }: DraftSaysProps) {
  const [ask] = asks;
  const waits = draft.after === "expect";
  const named = asks.find(({ date }) => date !== null);
  // Figures that two countries read in two ways are offered in both.
  const dates = [named?.date ?? null, named?.other ?? null].filter((date) => date !== null);
  const offersWait = ask !== undefined && (!waits || (dates.length > 0 && !dates.some(({ day }) => day === draft.day)));
  const isMissing = encloses !== null && (draft.enclosures ?? []).length === 0;
  return (
    <ul aria-label="What it says" className="mt-2 space-y-1 text-sm empty:hidden">
      {isMissing && <li className="text-late">Nothing is attached, and it says: “{short(encloses)}”</li>}
      {offersWait && (
        <li className="flex flex-wrap items-baseline gap-x-2">
          <span className="text-soft">It asks: “{short(ask.text)}”</span>
          {(dates.length === 0 ? [null] : dates).map((date, at) => (
            <button
              key={date?.day ?? ""}
              type="button"
              className={OFFER}
              onClick={() => change({ after: "expect", ...(date === null ? {} : { day: date.day }) })}
            >
              {date === null
                ? "Wait for a reply"
                : `${at === 0 ? "Wait for a reply" : "or, month first,"} by ${date.words}`}
            </button>
          ))}
        </li>
      )}
      {promises.map(({ text, date }) => (
        <li key={text} className="flex flex-wrap items-baseline gap-x-2">
          <label className="flex cursor-pointer items-baseline gap-2">
            <input
              type="checkbox"
              checked={(draft.promises ?? []).some((one) => one.text === text)}
              onChange={(event) => change({ promises: withPromise(draft, text, date?.at ?? "", event.target.checked) })}
              className="size-3.5 translate-y-0.5 accent-act"
            />
            <span>
              Follow-up for me{date === null ? "" : `, ${date.words}`}:{" "}
              <span className="text-soft">you promise “{short(text)}”</span>
            </span>
          </label>
        </li>
      ))}
    </ul>
  );
}

function withPromise(
  { promises = [] }: Draft,
  text: string,
  at: string,
  isKept: boolean,
): NonNullable<Draft["promises"]> {
  const others = promises.filter((one) => one.text !== text);
  return isKept ? [...others, { text, at }] : others;
}

const MOST_SHOWN = 90;

function short(text: string): string {
  return text.length <= MOST_SHOWN ? text : `${text.slice(0, MOST_SHOWN - 1).trimEnd()}…`;
}
