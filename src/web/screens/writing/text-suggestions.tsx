import type { Draft } from "../../../core/writing/draft";
import { shortened } from "../../../core/writing/sentences";
import { writingTexts } from "../../../texts/en/writing";
import type { FoundView, SaysView } from "../../server/writing/says-view.server";
import { useSay } from "../../ui/texts/use-say";

type DraftSaysProps = {
  readonly says: SaysView;
  readonly draft: Draft;
  readonly change: (part: Partial<Draft>) => void;
};

const OFFER = "text-act underline-offset-2 hover:underline";

/** What the text asks and promises, and what could be made of that: a reply to wait for, a follow-up for oneself. */
export function TextSuggestionList({ says: { asks, promises }, draft, change }: DraftSaysProps) {
  const say = useSay(writingTexts);
  const [ask] = asks;
  const waits = draft.after === "expect";
  const named = asks.find(({ date }) => date !== null);
  // What is read in two ways is offered in both.
  const dates = [named?.date ?? null, named?.other ?? null].filter((date) => date !== null);
  const offersWait =
    ask !== undefined && (!waits || (dates.length > 0 && !dates.some(({ until }) => until === draft.day)));
  return (
    <ul aria-label={say("writing.whatItSays")} className="mt-2 space-y-1 text-sm empty:hidden">
      {offersWait && (
        <li className="flex flex-wrap items-baseline gap-x-2">
          <span className="text-soft">{say("writing.itAsks", { text: shortened(ask.text) })}</span>
          {(dates.length === 0 ? [null] : dates).map((date, at) => (
            <button
              key={date?.until ?? ""}
              type="button"
              className={OFFER}
              onClick={({ currentTarget }) => {
                // It is gone then; whoever writes goes on where she wrote.
                currentTarget.closest("form")?.querySelector<HTMLElement>("[contenteditable=true]")?.focus();
                change({ after: "expect", ...(date === null ? {} : { day: date.until }) });
              }}
            >
              {date === null
                ? say("writing.waitForAReply")
                : say(at === 0 ? "writing.waitForAReplyBy" : "writing.orBy", { words: date.words })}
            </button>
          ))}
        </li>
      )}
      {promises.map((promise) => (
        <PromiseLine key={promise.text} promise={promise} draft={draft} change={change} />
      ))}
    </ul>
  );
}

type PromiseLineProps = Pick<DraftSaysProps, "draft" | "change"> & { readonly promise: FoundView };

/** A follow-up for oneself, by the day that one promises; by either where it is read in two ways. */
function PromiseLine({ promise: { text, date, other }, draft, change }: PromiseLineProps) {
  const say = useSay(writingTexts);
  const kept = (draft.promises ?? []).find((one) => one.text === text);
  const meant = kept !== undefined && kept.at === other?.at ? other : date;
  const rather = meant === other ? date : other;
  return (
    <li className="flex flex-wrap items-baseline gap-x-2">
      <label className="flex cursor-pointer items-baseline gap-2">
        <input
          type="checkbox"
          checked={kept !== undefined}
          onChange={(event) => change({ promises: withPromise(draft, text, date?.at ?? "", event.target.checked) })}
          className="size-3.5 translate-y-0.5 accent-act"
        />
        <span>
          {say("writing.followUpForMe")}
          {meant === null ? "" : `, ${meant.words}`}:{" "}
          <span className="text-soft">{say("writing.youPromise", { text: shortened(text) })}</span>
        </span>
      </label>
      {rather !== null && (
        <button
          type="button"
          className={OFFER}
          onClick={() => change({ promises: withPromise(draft, text, rather.at, true) })}
        >
          {say("writing.rather", { words: rather.words })}
        </button>
      )}
    </li>
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
