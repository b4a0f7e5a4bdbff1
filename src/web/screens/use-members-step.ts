import { useEffect } from "react";
import { useFetcher } from "react-router";
import { notice } from "../ui/notices";
import type { MembersOutcome } from "./members-outcome";
import { useTray } from "./tray-data";

/** A form about the members of the tray: what the server said, and what is done once it is done. */
export function useMembersStep(onDone: (outcome: Extract<MembersOutcome, { ok: true }>) => void = () => {}) {
  const { tray } = useTray();
  const { Form, data, state, submit } = useFetcher<MembersOutcome>();
  const outcome = state === "idle" ? data : undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each outcome
  useEffect(() => {
    if (outcome?.ok !== true) return;
    notice(outcome.said);
    onDone(outcome);
  }, [outcome]);
  const action = `/${tray.slug}/members`;
  return {
    ...{ Form, action },
    isBusy: state !== "idle",
    refused: outcome?.ok === false ? outcome : null,
    post: (fields: Record<string, string>) => void submit(fields, { method: "post", action }),
  };
}
