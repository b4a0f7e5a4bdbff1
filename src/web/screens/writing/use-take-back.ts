import { useFetcher } from "react-router";
import { writingTexts } from "../../../texts/en/writing";
import type { TakeBackOutcome } from "../../routes/writing/take-back";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useOutcome } from "../frame/use-step";
import { saveLocalDraft } from "./kept-draft";

/** Takes a message back; its text is then the draft of its conversation, and `onBack` is told which. */
export function useTakeBack(onBack: (conversationId: string) => void): (messageId: string) => void {
  const say = useSay(writingTexts);
  const { tray } = useTray();
  const { submit, data: outcome } = useFetcher<TakeBackOutcome>();
  useOutcome(outcome, (back) => {
    if (!back.ok) return noticeProblem(back.problem);
    saveLocalDraft(back.conversationId, { ...back.draft, after: "keep", day: "" });
    notice(say("writing.takenBackItIsA"));
    onBack(back.conversationId);
  });
  return (messageId) => void submit(null, { method: "post", action: `/${tray.slug}/messages/${messageId}/take-back` });
}
