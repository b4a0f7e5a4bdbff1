import { useFetcher } from "react-router";
import { notice, noticeProblem } from "../../ui/notices";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** What the server said to a step of a letter that is to go. */
export type LetterStepOutcome =
  | { readonly ok: true; readonly did: string; readonly said: string }
  | { readonly ok: false; readonly problem: string };

/** What can be done with a letter that is to go. */
export type LetterStepFields =
  | { readonly do: "call-off" | "send-now" | "let-go" }
  | { readonly do: "put"; readonly at: string };

/** Does something with letters that are to go, and says what came of it; `onDone` once the page shows it. */
export function useLetterStep(onDone: (did: string) => void = () => {}) {
  const { tray } = useTray();
  const { submit, state, data } = useFetcher<LetterStepOutcome>();
  // Once the page shows it as well.
  useOutcome(state === "idle" ? data : undefined, (outcome) => {
    if (!outcome.ok) return noticeProblem(outcome.problem);
    notice(outcome.said);
    onDone(outcome.did);
  });
  return {
    isBusy: state !== "idle",
    step: (id: string, fields: LetterStepFields) =>
      void submit({ id, ...fields }, { method: "post", action: `/${tray.slug}/going-later` }),
  };
}
