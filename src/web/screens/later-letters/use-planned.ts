import { useCallback, useRef } from "react";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useLetterStep } from "./use-letter-step";

/** A message of ours that goes by itself later, and when, in words. */
export type LetterPlanned = { readonly ok: true; readonly planned: { readonly id: string; readonly words: string } };

/** Says of a letter that was planned when it goes, with the way back, and goes on. */
export function usePlanned(goOn: () => void): (planned: LetterPlanned["planned"]) => void {
  const say = useSay(writingTexts, commonTexts);
  const { step } = useLetterStep();
  const latest = useRef({ goOn, step, say });
  latest.current = { goOn, step, say };
  return useCallback(({ id, words }) => {
    const { goOn: go, step: take, say: speak } = latest.current;
    const action = { label: speak("common.undo"), onClick: () => take(id, { do: "call-off" }) };
    notice(speak("writing.itGoesAt", { when: words }), { action });
    go();
  }, []);
}
