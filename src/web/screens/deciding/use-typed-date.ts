import { type ChangeEvent, useEffect, useState } from "react";
import type { DayEdge } from "../../../core/worktime/working-hours";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { DateAnswer } from "../../server/deciding/date-view.server";
import { wordsOfDay } from "../../ui/dates/day-words";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** What a date is wanted for: the side of its day that counts, and for which conversation; `usual` offers by when they usually answer. */
type Wanted = { readonly edge: DayEdge; readonly conversation: string; readonly usual: boolean };

type Answered = DateAnswer & { readonly text: string };

/**
 * A field in which somebody types a date in words, and what the server makes of it; `choose` is called with its moment.
 * What is offered is null until the server has said.
 */
export function useTypedDate(wanted: Wanted, choose: (at: string) => void) {
  const say = useSay(decidingTexts, commonTexts);
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const answer = useDateAnswer(text, wanted);
  const said = answer !== "failed" && answer?.text === text ? answer : null;
  const chooseTyped = () => {
    if (text.trim() === "") setProblem(say("deciding.typeADateForInstance"));
    else if (answer === "failed") setProblem(say("common.theServerDidNotAnswer"));
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
  return { field, said, chooseTyped, pickDay, offers: answer === "failed" ? answer : (answer?.offers ?? null) };
}

/** What the server says of the text in a date field; the newest answer counts. */
function useDateAnswer(text: string, { edge, conversation, usual }: Wanted): Answered | "failed" | null {
  const { tray } = useTray();
  const [answer, setAnswer] = useState<Answered | "failed" | null>(null);
  useEffect(() => {
    const aborter = new AbortController();
    const query = { text, edge, conversation, ...(usual ? { usual: "on" } : {}) };
    fetch(`/${tray.slug}/dates?${new URLSearchParams(query)}`, { signal: aborter.signal })
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error("no dates"))))
      .then((found: DateAnswer) => setAnswer({ ...found, text }))
      .catch(() => !aborter.signal.aborted && setAnswer("failed"));
    return () => aborter.abort();
  }, [tray.slug, text, edge, conversation, usual]);
  return answer;
}
