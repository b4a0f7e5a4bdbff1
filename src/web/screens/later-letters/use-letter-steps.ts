import { useRef } from "react";
import { useFetcher } from "react-router";
import { notice, noticeProblem } from "../../ui/notices";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** What the server said to a step of a letter that is to go. */
export type LetterStepOutcome =
  | { readonly ok: true; readonly said: string }
  | { readonly ok: false; readonly problem: string };

type LetterStepFields =
  | { readonly do: "call-off" | "call-off-series" | "send-now" | "let-go" }
  | { readonly do: "put"; readonly at: string };

/** Takes steps of letters that are to go. */
export type LetterSteps = {
  readonly isBusy: boolean;
  /** `andThen` once the page shows that it is done. */
  readonly take: (id: string, fields: LetterStepFields, andThen?: () => void) => void;
};

/**
 * Does something with letters that are to go, and says what came of it. For the page on which they stand, as a letter may
 * have left its place by then.
 */
export function useLetterSteps(): LetterSteps {
  const { tray } = useTray();
  const { submit, state, data } = useFetcher<LetterStepOutcome>();
  const next = useRef<() => void>(() => {});
  useOutcome(state === "idle" ? data : undefined, (outcome) => {
    if (!outcome.ok) return noticeProblem(outcome.problem);
    notice(outcome.said);
    next.current();
  });
  return {
    isBusy: state !== "idle",
    take: (id, fields, andThen = () => {}) => {
      next.current = andThen;
      void submit({ id, ...fields }, { method: "post", action: `/${tray.slug}/going-later` });
    },
  };
}
