import { useCallback, useRef } from "react";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useLetterSteps } from "./use-letter-steps";

/** A message of ours that goes by itself later, and when, in words. */
export type LetterPlanned = {
  readonly ok: true;
  readonly planned: { readonly id: string; readonly count: number; readonly words: string };
};

/** Says of a letter that was planned when it goes, with the way back, and goes on. */
export function usePlanned(goOn: () => void): (planned: LetterPlanned["planned"]) => void {
  const say = useSay(writingTexts, commonTexts);
  const { take } = useLetterSteps();
  const latest = useRef({ goOn, take, say });
  latest.current = { goOn, take, say };
  return useCallback(({ id, count, words }) => {
    const { goOn: go, take: takeBack, say: speak } = latest.current;
    const action = { label: speak("common.undo"), onClick: () => takeBack(id, { do: "call-off-series" }) };
    notice(speak("writing.itGoesAt", { when: words, count }), { action });
    go();
  }, []);
}
