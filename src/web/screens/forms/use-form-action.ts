import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";
import { notice } from "../../ui/notices";
import { useTray } from "../frame/tray-data";

/** What is wrong with a form, by the name of the field. */
export type FormProblems = Readonly<Record<string, string>>;

/** What the server said to a step: done, in words, perhaps without a part; or what is wrong, by field or as a whole. */
export type FormOutcome =
  | { readonly ok: true; readonly said: string; readonly problems?: FormProblems }
  | { readonly ok: false; readonly problems: FormProblems; readonly problem: string | null };

const NO_PROBLEMS: FormProblems = {};

/** Does something once for each outcome of a form as it comes, with what stands on the screen by then. */
export function useOutcome<O>(outcome: O | undefined, act: (outcome: O) => void): void {
  const latest = useRef(act);
  latest.current = act;
  useEffect(() => {
    if (outcome !== undefined) latest.current(outcome);
  }, [outcome]);
}

/** A form whose steps a page of the tray takes: what the server said, and what is done once it is done. */
export function useFormAction<O extends FormOutcome>(
  page: string,
  onDone: (outcome: Extract<O, { ok: true }>) => void = () => {},
) {
  const { tray } = useTray();
  const { Form, data, state, formData, submit } = useFetcher<O>();
  const outcome = state === "idle" ? (data as O | undefined) : undefined;
  useOutcome(outcome, (done) => {
    if (!done.ok) return;
    if (done.said !== "") notice(done.said);
    onDone(done as Extract<O, { ok: true }>);
  });
  const action = `/${tray.slug}/${page}`;
  return {
    Form,
    action,
    isBusy: state !== "idle",
    /** What is on its way, to be shown as done already. */
    underWay: formData,
    problems: outcome?.problems ?? NO_PROBLEMS,
    refused: outcome?.ok === false ? (outcome as Extract<O, { ok: false }>) : null,
    // Busy from this moment on, so that the same step is not taken twice.
    post: (fields: Record<string, string> | FormData) =>
      void submit(fields, { method: "post", action, flushSync: true }),
  };
}
