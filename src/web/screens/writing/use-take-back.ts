import { useFetcher } from "react-router";
import type { TakeBackOutcome } from "../../routes/writing/take-back";
import { notice, noticeProblem } from "../../ui/notices";
import { useTray } from "../frame/tray-data";
import { useOutcome } from "../frame/use-step";
import { saveLocalDraft } from "./kept-draft";

/** Takes a message back; its text is then the draft of its conversation, and `onBack` is told which. */
export function useTakeBack(onBack: (conversationId: string) => void): (messageId: string) => void {
  const { tray } = useTray();
  const { submit, data: outcome } = useFetcher<TakeBackOutcome>();
  useOutcome(outcome, (back) => {
    if (!back.ok) return noticeProblem(back.problem);
    saveLocalDraft(back.conversationId, { ...back.draft, after: "keep", day: "" });
    notice("Taken back: it is a draft again.");
    onBack(back.conversationId);
  });
  return (messageId) => void submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/take-back` });
}
