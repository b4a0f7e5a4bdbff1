import { Link, useNavigate } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { LetterToGoView } from "../../server/writing/letter-to-go-view.server";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { Conditions, LetterActions } from "./letter-to-go";
import { type LetterSteps, useLetterSteps } from "./use-letter-steps";

/** What is to go later by its days, behind what is held; and what went, or was not needed, lately. */
export function LaterLettersScreen({ letters }: { readonly letters: readonly LetterToGoView[] }) {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const held = letters.filter(({ state }) => state === "held");
  const waiting = letters.filter(({ state }) => state === "waiting");
  const over = letters.filter(({ state }) => state === "sent" || state === "stopped");
  const steps = useLetterSteps();
  const days = [...new Set(waiting.map(({ day }) => day))];
  return (
    <Page
      title={say("writing.toGoLater")}
      beside={
        <Link to={`/${tray.slug}/drafts`} className="ms-auto text-act hover:underline">
          {say("writing.drafts")}
        </Link>
      }
    >
      {letters.length === 0 && <p className="max-w-prose px-4 py-6 text-soft">{say("writing.nothingToGoLater")}</p>}
      {held.length > 0 && <Part name={say("writing.heldYouAreAsked")} letters={held} steps={steps} />}
      {days.map((day) => (
        <Part key={day} name={day} letters={waiting.filter((letter) => letter.day === day)} steps={steps} />
      ))}
      {over.length > 0 && <Part name={say("writing.wentLately")} letters={over} steps={steps} />}
    </Page>
  );
}

type PartProps = {
  readonly name: string;
  readonly letters: readonly LetterToGoView[];
  readonly steps: LetterSteps;
};

function Part({ name, letters, steps }: PartProps) {
  return (
    <section aria-label={name}>
      <h2 className="flex items-baseline gap-2 border-b border-hair bg-ground px-4 py-1 text-sm font-semibold text-soft">
        <span className="inline-block first-letter:uppercase">{name}</span>{" "}
        <span className="font-normal">{letters.length}</span>
      </h2>
      <ul>
        {letters.map((letter) => (
          <Row key={letter.id} letter={letter} steps={steps} />
        ))}
      </ul>
    </section>
  );
}

function Row({ letter, steps }: { readonly letter: LetterToGoView; readonly steps: LetterSteps }) {
  const say = useSay(writingTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const { id, place, subject, text, state, time, held, isLate } = letter;
  const shown = subject.trim() || say("common.noSubject");
  const isOver = state === "sent" || state === "stopped";
  return (
    <li className="grid gap-x-4 gap-y-1.5 border-b border-hair px-4 py-2 lg:grid-cols-[84px_minmax(0,1fr)_auto] lg:items-center">
      <p className="text-sm lg:self-start lg:pt-0.5">
        {state === "held" ? "" : state === "stopped" ? say("writing.notNeeded", { why: whyNot(letter) }) : time}
        {isLate && <b className="ms-1.5 font-semibold text-late">{say("writing.late")}</b>}
      </p>
      <div className="min-w-0">
        {place === null ? (
          <span dir="auto" className="block truncate font-serif">
            {shown}
          </span>
        ) : (
          <Link to={`/${tray.slug}/${place}`} dir="auto" className="block truncate font-serif hover:text-act">
            {shown}
          </Link>
        )}
        <p dir="auto" className="truncate text-sm text-soft">
          <Conditions letter={letter} />
          {text !== "" && ` · ${text}`}
        </p>
        {held !== null && <p className="text-sm text-late">{held}</p>}
      </div>
      {!isOver && (
        <LetterActions
          letter={letter}
          steps={steps}
          onChange={() => void navigate(`/${tray.slug}/${place ?? `write?draft=${id}`}`)}
        />
      )}
    </li>
  );
}

// By its terms: which of two it was is not kept.
function whyNot({ ifSilent, untilSettled }: LetterToGoView): "answered" | "settled" | "either" {
  if (ifSilent && untilSettled) return "either";
  return untilSettled ? "settled" : "answered";
}
