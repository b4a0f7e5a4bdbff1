import { useFetcher } from "react-router";
import { writingTexts } from "../../../texts/en/writing";
import type { RecallOutcome } from "../../routes/writing/recall";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { saveLocalDraft } from "./local-draft";

/** Takes a message back; its text is then the draft of its conversation, and `onBack` is told which. */
export function useRecall(onBack: (conversationId: string) => void): (messageId: string) => void {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const { submit, data: outcome } = useFetcher<RecallOutcome>();
  useOutcome(outcome, (back) => {
    if (!back.ok) return noticeProblem(back.problem);
    saveLocalDraft(back.conversationId, { ...back.draft, after: "keep", day: "" });
    notice(say("writing.takenBackItIsA"));
    onBack(back.conversationId);
  });
  return (messageId) => void submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/recall` });
}
