import { FileText } from "lucide-react";
import { lazy, useState } from "react";
import { templatesTexts } from "../../../texts/en/templates";
import { Opens } from "../../keys/key-desk";
import { useAltKey } from "../../keys/use-alt-key";
import type { UsedTemplateView } from "../../server/templates/template-view.server";
import { KeyCap } from "../../ui/button";
import { noticeProblem } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

const TemplatePicker = lazy(() => import("./template-picker"));

type UseTemplateProps = {
  /** The letter that it is used for: its conversation, its record, to whom it goes; empty where there is none. */
  readonly about: { readonly conversationId: string | null; readonly recordCode: string; readonly to: string };
  readonly onUse: (used: UsedTemplateView) => void;
};

/** Takes a template into what one writes, filled with what is known of it. */
export function UseTemplate({ about, onUse }: UseTemplateProps) {
  const say = useSay(templatesTexts);
  const { tray } = useTray();
  const [picks, setPicks] = useState(false);
  useAltKey("KeyT", () => setPicks(true));
  const use = async (id: string) => {
    setPicks(false);
    const { conversationId, recordCode, to } = about;
    const asked = new URLSearchParams({ conversation: conversationId ?? "", record: recordCode, to });
    try {
      const response = await fetch(`/${tray.slug}/templates/${id}/used?${asked}`);
      if (response.ok) onUse((await response.json()) as UsedTemplateView);
      else noticeProblem(say("templates.itIsGone"));
    } catch {
      noticeProblem(say("templates.theServerDoesNotAnswer"));
    }
  };
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-keyshortcuts="Alt+T"
        onClick={() => setPicks(true)}
        className="ms-auto flex h-7 items-center gap-1.5 rounded-control px-1.5 text-sm text-soft hover:bg-sunk"
      >
        <FileText size={15} aria-hidden />
        {say("templates.template")} <KeyCap>{say("templates.altT")}</KeyCap>
      </button>
      <Opens>
        {picks && (
          <TemplatePicker
            conversationId={about.conversationId}
            onPick={(id) => void use(id)}
            onClose={() => setPicks(false)}
          />
        )}
      </Opens>
    </>
  );
}
