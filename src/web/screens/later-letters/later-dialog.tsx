import { useState } from "react";
import { decidingTexts } from "../../../texts/en/deciding";
import { writingTexts } from "../../../texts/en/writing";
import { Button } from "../../ui/button";
import { CalendarButton } from "../../ui/dates/calendar-button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { AmbiguousDate } from "../deciding/ambiguous-date";
import { useTypedDate } from "../deciding/use-typed-date";

/** When a letter goes: a moment (ISO 8601), and whether only where nobody has answered by then. */
export type LaterChosen = { readonly at: string; readonly ifSilent: boolean };

type LaterDialogProps = {
  /** To whom it goes, as its field has it. */
  readonly to: string;
  /** What it answers; null for a first message. */
  readonly conversationId: string | null;
  /** Whether it can be made to depend on an answer. */
  readonly asksIfSilent: boolean;
  readonly onChoose: (chosen: LaterChosen) => void;
  readonly onClose: () => void;
};

/** Chooses when a letter goes: in words, at the start of a day of whoever gets it, or one of the office's moments. */
export function LaterDialog({ to, conversationId, asksIfSilent, onChoose, onClose }: LaterDialogProps) {
  const say = useSay(writingTexts, decidingTexts);
  const [ifSilent, setIfSilent] = useState(false);
  const choose = (at: string) => onChoose({ at, ifSilent });
  const wanted = { edge: "opens", conversation: conversationId ?? "", usual: false, to } as const;
  const { field, said, offers, chooseTyped, pickDay } = useTypedDate(wanted, choose);
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("writing.sendLater")}
      description={say("writing.itGoesByItself")}
    >
      <form
        className="border-b border-hair px-4 py-3"
        onSubmit={(event) => {
          event.preventDefault();
          // It stands above the form of the letter.
          event.stopPropagation();
          chooseTyped();
        }}
      >
        <div className="flex items-end gap-2">
          <Field className="flex-1" label={say("writing.whenItGoes")} {...field} />
          <CalendarButton label={say("writing.whenItGoes")} onDay={pickDay} />
          <Button type="submit" look="filled" className="h-9">
            {say("deciding.choose")}
          </Button>
        </div>
        <AmbiguousDate said={said} onChoose={choose} />
        {asksIfSilent && (
          <Tick checked={ifSilent} onTick={setIfSilent} className="mt-2 text-sm">
            {say("writing.onlyIfNobodyAnswered")}
          </Tick>
        )}
      </form>
      {offers === null && <p className="min-h-48 px-4 py-2 text-soft">{say("deciding.loadingDates")}</p>}
      {offers === "failed" && <p className="px-4 py-2 text-late">{say("deciding.theDatesToOfferCould")}</p>}
      {offers !== null && offers !== "failed" && (
        <ul className="overflow-y-auto py-1">
          {offers.map(({ label, words, at }) => (
            <li key={label}>
              <button
                type="button"
                onClick={() => choose(at)}
                className="flex w-full justify-between gap-4 px-4 py-1.5 text-start hover:bg-act-soft focus-visible:bg-act-soft focus-visible:-outline-offset-2"
              >
                <span className="font-semibold first-letter:uppercase">{label}</span>
                <span className="whitespace-nowrap text-soft">{words}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}
