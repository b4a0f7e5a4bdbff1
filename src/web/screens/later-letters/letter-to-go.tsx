import { type ReactNode, useState } from "react";
import { writingTexts } from "../../../texts/en/writing";
import type { LetterToGoView } from "../../server/writing/letter-to-go-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { LaterDialog } from "./later-dialog";
import type { LetterSteps } from "./use-letter-steps";

type LetterActionsProps = {
  readonly letter: LetterToGoView;
  readonly steps: LetterSteps;
  /** Goes on with it as a draft, once it is one. */
  readonly onChange: () => void;
};

/** What its writer can do with a letter that is to go; who leads the tray can call it off. */
export function LetterActions({ letter, steps: { take, isBusy }, onChange }: LetterActionsProps) {
  const say = useSay(writingTexts);
  const { mayLead } = useTray();
  const [isAsking, setAsking] = useState(false);
  const { id, isMine, state } = letter;
  const does = (what: "call-off" | "call-off-series" | "send-now" | "let-go") => () => take(id, { do: what });
  return (
    <div className="flex flex-wrap items-center gap-2">
      {isMine && (
        <>
          <Button disabled={isBusy} onClick={does("send-now")}>
            {say("writing.sendNow")}
          </Button>
          {state === "held" && !letter.isLate && (
            <Button disabled={isBusy} onClick={does("let-go")}>
              {say("writing.letItGoThen")}
            </Button>
          )}
          <Button disabled={isBusy} aria-haspopup="dialog" onClick={() => setAsking(true)}>
            {say("writing.anotherTime")}
          </Button>
          <Button disabled={isBusy} onClick={() => take(id, { do: "call-off" }, onChange)}>
            {say("writing.changeIt")}
          </Button>
        </>
      )}
      {(isMine || mayLead) && (
        <Button look="quiet" disabled={isBusy} onClick={does("call-off")}>
          {say("writing.callOff")}
        </Button>
      )}
      {(isMine || mayLead) && letter.series !== null && (
        <Button look="quiet" disabled={isBusy} onClick={does("call-off-series")}>
          {say("writing.callOffTheSeries")}
        </Button>
      )}
      {isAsking && (
        <LaterDialog
          to={letter.to}
          conversationId={null}
          asksTerms={false}
          onChoose={({ moments: [at] }) => {
            setAsking(false);
            if (at !== undefined) take(id, { do: "put", at });
          }}
          onClose={() => setAsking(false)}
        />
      )}
    </div>
  );
}

/** A letter that is to go into a conversation, as it stands behind its messages. */
export function LetterToGo({ letter, steps, onChange }: LetterActionsProps) {
  const say = useSay(writingTexts);
  const isHeld = letter.state === "held";
  return (
    <section
      aria-label={say("writing.letterToGo", { subject: letter.subject })}
      className={`my-3 ms-8 rounded-sheet border border-dashed bg-ours px-4.5 py-3 ${isHeld ? "border-late" : "border-act/60"}`}
    >
      <p className="flex flex-wrap items-baseline gap-x-2">
        <b className="font-semibold">{isHeld ? say("writing.isHeld") : say("writing.goesAt", { when: letter.when })}</b>
        <span className="text-sm text-soft">
          <Conditions letter={letter} />
        </span>
      </p>
      {letter.held !== null && <p className="mt-0.5 text-late">{letter.held}</p>}
      <p dir="auto" className="mt-1 line-clamp-3 max-w-[68ch]">
        {letter.text}
      </p>
      <div className="mt-2.5">
        <LetterActions letter={letter} steps={steps} onChange={onChange} />
      </div>
    </section>
  );
}

/** Whose it is, to whom it goes, and on what condition. */
export function Conditions({ letter }: { readonly letter: LetterToGoView }): ReactNode {
  const say = useSay(writingTexts);
  const { writer, to, series, ifSilent, untilSettled, state, when } = letter;
  return [
    say("writing.byTo", { writer, to }),
    ...(series === null ? [] : [say("writing.partOfSeries", series)]),
    ...(ifSilent ? [say("writing.onlyWithoutAnAnswer")] : []),
    ...(untilSettled ? [say("writing.onlyWhileOpen")] : []),
    ...(state === "held" ? [say("writing.wasToGo", { when })] : []),
  ].join(" · ");
}
