import { useEffect } from "react";
import { useFetcher } from "react-router";
import type { TakeBackOutcome } from "../../routes/writing/take-back";
import { notice, noticeProblem } from "../../ui/notices";
import { useTray } from "../frame/tray-data";
import { saveLocalDraft } from "./kept-draft";

/** Takes a message back; its text is then the draft of its conversation, and `onBack` is told which. */
export function useTakeBack(onBack: (conversationId: string) => void): (messageId: string) => void {
  const { tray } = useTray();
  const { submit, data: outcome } = useFetcher<TakeBackOutcome>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each outcome
  useEffect(() => {
    if (outcome === undefined) return;
    if (!outcome.ok) {
      noticeProblem(outcome.problem);
      return;
    }
    saveLocalDraft(outcome.conversationId, { ...outcome.draft, after: "keep", day: "" });
    notice("Taken back: it is a draft again.");
    onBack(outcome.conversationId);
  }, [outcome]);
  return (messageId) => void submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/take-back` });
}
