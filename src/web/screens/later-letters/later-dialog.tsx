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
import { DateOffers } from "../forms/date-offers";
import { SeriesSteps } from "./series-steps";

/** When a letter goes: one moment or several (ISO 8601), and on what terms. */
export type LaterChosen = {
  readonly moments: readonly string[];
  readonly ifSilent: boolean;
  readonly untilSettled: boolean;
};

type LaterDialogProps = {
  /** To whom it goes, as its field has it. */
  readonly to: string;
  /** What it answers; null for a first message. */
  readonly conversationId: string | null;
  /** Whether it can be made to depend on what happens before, and go several times. */
  readonly asksTerms: boolean;
  readonly onChoose: (chosen: LaterChosen) => void;
  readonly onClose: () => void;
};

/** Chooses when a letter goes: in words, at the start of a day of whoever gets it, one of the office's moments, or several around a day. */
export function LaterDialog({ to, conversationId, asksTerms, onChoose, onClose }: LaterDialogProps) {
  const say = useSay(writingTexts, decidingTexts);
  const [terms, setTerms] = useState({ ifSilent: false, untilSettled: false });
  const [isSeries, setSeries] = useState(false);
  const [about, setAbout] = useState<string | null>(null);
  const choose = (at: string) => (isSeries ? setAbout(at) : onChoose({ moments: [at], ...terms }));
  const wanted = { edge: "opens", conversation: conversationId ?? "", usual: false, to } as const;
  const { field, said, offers, chooseTyped, pickDay } = useTypedDate(wanted, choose);
  const turnSeries = (isOn: boolean) => {
    setSeries(isOn);
    setAbout(null);
    // What goes again is for those who have not answered, unless one says otherwise.
    setTerms({ ...terms, ifSilent: isOn });
  };
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("writing.sendItLater")}
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
          <Field
            className="flex-1"
            label={isSeries ? say("writing.aroundWhichDay") : say("writing.whenItGoes")}
            {...field}
          />
          <CalendarButton label={say("writing.sendItLater")} onDay={pickDay} />
          <Button type="submit" look={about === null ? "filled" : "outline"} className="h-9">
            {say("deciding.choose")}
          </Button>
        </div>
        <AmbiguousDate said={said} onChoose={choose} />
        {asksTerms && (
          <div className="mt-1 grid gap-1 text-sm">
            <Tick checked={terms.ifSilent} onTick={(ifSilent) => setTerms({ ...terms, ifSilent })}>
              {say("writing.onlyIfNobodyAnswered")}
            </Tick>
            <Tick checked={terms.untilSettled} onTick={(untilSettled) => setTerms({ ...terms, untilSettled })}>
              {say("writing.onlyWhileNotSettled")}
            </Tick>
            <Tick checked={isSeries} onTick={turnSeries}>
              {say("writing.severalTimes")}
            </Tick>
          </div>
        )}
      </form>
      {about === null ? (
        <DateOffers offers={offers} onChoose={choose} />
      ) : (
        <SeriesSteps key={about} about={about} onChoose={(moments) => onChoose({ moments, ...terms })} />
      )}
    </Dialog>
  );
}
