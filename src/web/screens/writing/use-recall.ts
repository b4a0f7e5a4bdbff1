import { useFetcher } from "react-router";
import { v4 } from "uuid";
import { writingTexts } from "../../../texts/en/writing";
import type { RecallOutcome } from "../../routes/writing/recall";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { saveLocalDraft } from "../drafts/local-draft";
import { forgetKept } from "../drafts/use-kept-draft";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** Takes a message back; its text is then the draft of its conversation, and `onBack` is told which. */
export function useRecall(onBack: (conversationId: string) => void): (messageId: string) => void {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const { submit, data: outcome } = useFetcher<RecallOutcome>();
  useOutcome(outcome, (back) => {
    if (!back.ok) return noticeProblem(back.problem);
    const draft = { ...back.draft, after: "keep", day: "" } as const;
    forgetKept(back.conversationId);
    saveLocalDraft(back.conversationId, { id: v4(), version: 0, draft, isSaved: false });
    notice(say("writing.takenBackItIsA"));
    onBack(back.conversationId);
  });
  return (messageId) => void submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/recall` });
}
