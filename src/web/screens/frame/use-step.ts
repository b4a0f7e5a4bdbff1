import { useEffect } from "react";
import { useFetcher } from "react-router";
import { notice } from "../../ui/notices";
import { useTray } from "./tray-data";

/** What the server said to a step: done, in words; or what is wrong, by field or as a whole. */
export type StepOutcome =
  | { readonly ok: true; readonly said: string }
  | { readonly ok: false; readonly problems: Readonly<Record<string, string>>; readonly problem: string | null };

/** A form whose steps a page of the tray takes: what the server said, and what is done once it is done. */
export function useStep<O extends StepOutcome>(
  page: string,
  onDone: (outcome: Extract<O, { ok: true }>) => void = () => {},
) {
  const { tray } = useTray();
  const { Form, data, state, formData, submit } = useFetcher<O>();
  const outcome = state === "idle" ? (data as O | undefined) : undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each outcome
  useEffect(() => {
    if (outcome?.ok !== true) return;
    if (outcome.said !== "") notice(outcome.said);
    onDone(outcome as Extract<O, { ok: true }>);
  }, [outcome]);
  const action = `/${tray.slug}/${page}`;
  return {
    Form,
    action,
    isBusy: state !== "idle",
    /** What is on its way, to be shown as done already. */
    underWay: formData,
    refused: outcome?.ok === false ? (outcome as Extract<O, { ok: false }>) : null,
    // Busy from this moment on, so that the same step is not taken twice.
    post: (fields: Record<string, string> | FormData) =>
      void submit(fields, { method: "post", action, flushSync: true }),
  };
}
