import { type ChangeEvent, useState } from "react";
import type { DayEdge } from "../../../core/worktime/working-hours";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { DateAnswer } from "../../server/deciding/date-view.server";
import { wordsOfDay } from "../../ui/dates/day-words";
import { useSay } from "../../ui/texts/use-say";
import { useDateAnswer } from "../forms/use-date-answer";

/**
 * What a date is wanted for: the side of its day that counts, and for which conversation; `usual` offers by when they usually
 * answer, `to` when the next day begins of whoever a letter goes to.
 */
type Wanted = {
  readonly edge: DayEdge;
  readonly conversation: string;
  readonly usual: boolean;
  readonly to?: string;
};

/**
 * A field in which somebody types a date in words, and what the server makes of it; `choose` is called with its moment.
 * What is offered is null until the server has said.
 */
export function useTypedDate(wanted: Wanted, choose: (at: string) => void) {
  const say = useSay(decidingTexts, commonTexts);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const { usual, ...asked } = wanted;
  const query = new URLSearchParams({ text, ...asked, ...(usual ? { usual: "on" } : {}) }).toString();
  const answered = useDateAnswer<DateAnswer>(query);
  const hasFailed = answered !== null && answered.answer === null;
  const said = answered?.asked === query ? answered.answer : null;
  const chooseTyped = () => {
    if (text.trim() === "") setProblem(say("deciding.typeADateForInstance"));
    else if (hasFailed) setProblem(say("common.theServerDidNotAnswer"));
    else if (said?.meant != null) choose(said.meant.at);
    else setProblem(said?.problem ?? say("deciding.oneMomentTheDateIs"));
  };
  const field = {
    placeholder: say("deciding.fri10In3Working"),
    autoFocus: true,
    autoComplete: "off",
    value: text,
    onChange: (event: ChangeEvent<HTMLInputElement>) => {
      setText(event.target.value);
      setProblem(undefined);
    },
    problem: problem ?? (said?.problem != null && text.trim().length > 2 ? said.problem : undefined),
  };
  const pickDay = (day: string) => {
    setText(wordsOfDay(day));
    setProblem(undefined);
  };
  return {
    field,
    said,
    chooseTyped,
    pickDay,
    offers: hasFailed ? ("failed" as const) : (answered?.answer?.offers ?? null),
  };
}
