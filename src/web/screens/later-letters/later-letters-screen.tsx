import { Link, useNavigate } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { LetterToGoView } from "../../server/writing/letter-to-go-view.server";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { Conditions, LetterActions } from "./letter-to-go";

/** What is to go later by its days, behind what is held; and what went, or was not needed, lately. */
export function LaterLettersScreen({ letters }: { readonly letters: readonly LetterToGoView[] }) {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const held = letters.filter(({ state }) => state === "held");
  const waiting = letters.filter(({ state }) => state === "waiting");
  const over = letters.filter(({ state }) => state === "sent" || state === "stopped");
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
      {held.length > 0 && <Part name={say("writing.heldYouAreAsked")} letters={held} />}
      {days.map((day) => (
        <Part key={day} name={day} letters={waiting.filter((letter) => letter.day === day)} />
      ))}
      {over.length > 0 && <Part name={say("writing.wentLately")} letters={over} />}
    </Page>
  );
}

type PartProps = { readonly name: string; readonly letters: readonly LetterToGoView[] };

function Part({ name, letters }: PartProps) {
  return (
    <section aria-label={name}>
      <h2 className="flex items-baseline gap-2 border-b border-hair bg-ground px-4 py-1 text-sm font-semibold text-soft first-letter:uppercase">
        {name} <span className="font-normal">{letters.length}</span>
      </h2>
      <ul>
        {letters.map((letter) => (
          <Row key={letter.id} letter={letter} />
        ))}
      </ul>
    </section>
  );
}

function Row({ letter }: { readonly letter: LetterToGoView }) {
  const say = useSay(writingTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const { id, place, subject, state, time, held, isLate } = letter;
  const shown = subject.trim() || say("common.noSubject");
  const isOver = state === "sent" || state === "stopped";
  return (
    <li className="border-b border-hair px-4 py-2">
      <p className="flex items-baseline gap-x-3">
        {place === null ? (
          <span dir="auto" className="min-w-0 flex-1 truncate font-serif">
            {shown}
          </span>
        ) : (
          <Link to={`/${tray.slug}/${place}`} dir="auto" className="min-w-0 flex-1 truncate font-serif hover:text-act">
            {shown}
          </Link>
        )}
        {isLate && <span className="text-sm font-semibold text-late">{say("writing.late")}</span>}
        <span className="shrink-0 text-sm text-soft">
          {state === "stopped" ? say("writing.notNeeded") : isOver ? say("writing.wentAt", { when: time }) : time}
        </span>
      </p>
      <p dir="auto" className="truncate text-sm text-soft">
        <Conditions letter={letter} />
      </p>
      {held !== null && <p className="text-sm text-late">{held}</p>}
      {!isOver && (
        <LetterActions
          letter={letter}
          onChange={() => void navigate(`/${tray.slug}/${place ?? `write?draft=${id}`}`)}
        />
      )}
    </li>
  );
}
