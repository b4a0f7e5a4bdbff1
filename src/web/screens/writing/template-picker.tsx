import { useEffect } from "react";
import { Link, useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { templatesTexts } from "../../../texts/en/templates";
import type { loader } from "../../routes/templates/template-choices";
import { KeyCap } from "../../ui/button";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type TemplatePickerProps = {
  /** Where it is written; null for a first message. */
  readonly conversationId: string | null;
  readonly onPick: (id: string) => void;
  readonly onClose: () => void;
};

/** Picks a template by its name, its key or a part of what it is for. */
export default function TemplatePicker({ conversationId, onPick, onClose }: TemplatePickerProps) {
  const say = useSay(templatesTexts, commonTexts);
  const { tray } = useTray();
  const { load, data, state } = useFetcher<typeof loader>();
  useEffect(
    () => void load(`/${tray.slug}/template-choices?conversation=${conversationId ?? ""}`),
    [load, tray.slug, conversationId],
  );
  const isThere = data !== undefined && state === "idle";
  const templates = data?.templates ?? [];
  return (
    <Picker
      title={say("templates.writeWithATemplate")}
      prompt={say("templates.typeNameOrKey")}
      empty={
        isThere ? say(templates.length === 0 ? "templates.noneYet" : "templates.noneHasThat") : say("common.searching")
      }
      size="wide"
      isLoading={!isThere}
      choices={templates.map(({ id, name, folder, key, description, isProposed }) => ({
        id,
        words: `${key} ${name} ${folder} ${description}`,
        face: (
          <span className="flex items-baseline gap-2">
            {key !== "" && <KeyCap>{key}</KeyCap>}
            <span className="font-serif">{name}</span>
            {isProposed && <span className="shrink-0 text-sm text-act">{say("templates.usedForSuchMail")}</span>}
            <span className="truncate text-sm text-soft">{[folder, description].filter(Boolean).join(" · ")}</span>
          </span>
        ),
      }))}
      footer={
        <Link to={`/${tray.slug}/templates`} className="text-sm text-act hover:underline">
          {say("templates.allTemplates")}
        </Link>
      }
      onPick={onPick}
      onClose={onClose}
    />
  );
}
