import { useEffect, useRef } from "react";
import { useFetcher } from "react-router";

export type FormFields = Readonly<Record<string, string | readonly string[]>>;

/** The body that carries some fields. */
export function formDataOf(fields: FormFields): FormData {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) for (const one of [value].flat()) body.append(name, one);
  return body;
}

type DecisionSubmitterProps<Outcome> = {
  readonly action: string;
  readonly form: FormFields;
  /** Called with the server's answer, while what is shown is being loaded anew. */
  readonly onAnswer?: (outcome: Outcome) => void;
  /** Called when that has been loaded. */
  readonly onDone?: (outcome: Outcome) => void;
};

/** Carries one form to the server: one for each decision under way, as a fetcher carries one at a time. */
export function DecisionSubmitter<Outcome>({ action, form, onAnswer, onDone }: DecisionSubmitterProps<Outcome>) {
  const fetcher = useFetcher<Outcome>();
  const sent = useRef(false);
  const hear = useRef({ onAnswer, onDone });
  hear.current = { onAnswer, onDone };
  useEffect(() => {
    if (sent.current) return;
    sent.current = true;
    void fetcher.submit(formDataOf(form), { method: "post", action });
  }, [fetcher, form, action]);
  useEffect(() => {
    if (fetcher.state === "submitting" || fetcher.data === undefined) return;
    hear.current.onAnswer?.(fetcher.data as Outcome);
    if (fetcher.state === "idle") hear.current.onDone?.(fetcher.data as Outcome);
  }, [fetcher.state, fetcher.data]);
  return null;
}
