import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import type { OwnDraftAnswer } from "../../routes/writing/own-draft";
import { notice, noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useOutcome } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

/** Throws a draft of one's own away, with the way back, and brings one back. */
export function useDraftStep() {
  const say = useSay(writingTexts, commonTexts);
  const { tray } = useTray();
  const { submit, data } = useFetcher<OwnDraftAnswer>();
  useOutcome(data, (answer) => {
    if (!answer.ok) noticeProblem(answer.problem);
  });
  const step = (id: string, what: "throw-away" | "bring-back") =>
    void submit({ do: what }, { method: "post", action: `/${tray.slug}/own-drafts/${id}` });
  return {
    bringBack: (id: string) => step(id, "bring-back"),
    throwAway: (id: string) => {
      step(id, "throw-away");
      const action = { label: say("common.undo"), onClick: () => step(id, "bring-back") };
      notice(say("writing.draftDiscarded"), { action });
    },
  };
}
