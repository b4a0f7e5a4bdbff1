import { useState } from "react";
import type { SeriesStep } from "../../../core/later-letters/series";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { writingTexts } from "../../../texts/en/writing";
import type { SeriesAnswer } from "../../server/deciding/date-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useDateAnswer } from "../forms/use-date-answer";

type SeriesStepsProps = {
  /** A moment of the day that the series is about (ISO 8601). */
  readonly about: string;
  readonly onChoose: (moments: readonly string[]) => void;
};

const USUAL: ReadonlySet<SeriesStep> = new Set(["month-before", "week-before", "day-before"]);

/** Which letters of a series go, each with its day. */
export function SeriesSteps({ about, onChoose }: SeriesStepsProps) {
  const say = useSay(writingTexts, decidingTexts, commonTexts);
  const answered = useDateAnswer<SeriesAnswer>(new URLSearchParams({ around: about }).toString());
  const [chosen, setChosen] = useState(USUAL);
  if (answered === null) return <p className="min-h-48 px-4 py-2 text-soft">{say("deciding.loadingDates")}</p>;
  if (answered.answer === null) return <p className="px-4 py-2 text-late">{say("deciding.theDatesToOfferCould")}</p>;
  const { steps } = answered.answer;
  const going = steps.filter(({ step, isOver }) => chosen.has(step) && !isOver);
  const moments = [...new Set(going.map(({ at }) => at))];
  const put = (step: SeriesStep, isOn: boolean) => {
    const others = [...chosen].filter((one) => one !== step);
    setChosen(new Set(isOn ? [...others, step] : others));
  };
  return (
    <div className="overflow-y-auto px-4 py-3">
      <ul className="grid gap-1">
        {steps.map(({ step, words, isOver }) => (
          <li key={step} className={`flex justify-between gap-4 ${isOver ? "text-soft" : ""}`}>
            <Tick
              checked={chosen.has(step) && !isOver}
              disabled={isOver}
              onTick={(isOn) => put(step, isOn)}
              className="font-semibold"
            >
              {say("writing.seriesStep", { step: step.replaceAll("-", "") })}
            </Tick>
            <span className="whitespace-nowrap text-soft">{isOver ? say("writing.isOver") : words}</span>
          </li>
        ))}
      </ul>
      <Button look="filled" className="mt-3" disabled={moments.length === 0} onClick={() => onChoose(moments)}>
        {say("writing.planLetters", { count: moments.length })}
      </Button>
    </div>
  );
}
