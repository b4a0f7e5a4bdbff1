import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { allOf } from "../../../core/kernel/all-of";
import { REMINDER_LANGUAGES, TONES } from "../../../core/kernel/reminder-style";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import type { loader as preview } from "../../routes/waiting/reminders";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { FormFoot } from "../forms/form-foot";
import { LANGUAGE_NAMES, TONE_NAMES } from "../forms/reminder-styles";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";

type RemindDialogProps = {
  /** Whom it is about, the first of them being shown. */
  readonly rows: readonly { readonly id: string; readonly who: string }[];
  readonly onDone: () => void;
  readonly onClose: () => void;
};

const STYLE_KEY = "common-tray-reminder-style";

/** The style one chose last, in this browser. */
function keptStyle(): { tone: string; language: string } {
  try {
    const kept = JSON.parse(localStorage.getItem(STYLE_KEY) ?? "null");
    if (typeof kept?.tone === "string" && typeof kept.language === "string") return kept;
  } catch {
    // Nothing was kept, or nothing can be.
  }
  return { tone: "friendly", language: "en" };
}

/** Prepares a reminder in the same thread, for one or several, once or in a series that stops at the answer. */
export function RemindDialog({ rows, onDone, onClose }: RemindDialogProps) {
  const say = useSay(waitingTexts, commonTexts);
  const { tray } = useTray();
  const [style, setStyle] = useState(keptStyle);
  const [own, setOwn] = useState<string | null>(null);
  const [isSeries, setSeries] = useState(false);
  const { load, data } = useFetcher<typeof preview>();
  const { post, refused, isBusy } = useFormAction("reminders", onDone);
  const [first] = rows;
  const conversation = first?.id ?? "";
  useEffect(() => {
    void load(`/${tray.slug}/reminders?${new URLSearchParams({ conversation, ...style })}`);
  }, [load, tray.slug, conversation, style]);
  const choose = (part: Partial<typeof style>) => {
    const next = { ...style, ...part };
    setStyle(next);
    try {
      localStorage.setItem(STYLE_KEY, JSON.stringify(next));
    } catch {
      // It is chosen for this time.
    }
  };
  const plan = () => {
    const form = new FormData();
    const fields = { do: "plan", ...style, own: String(own !== null), text: own ?? "", series: String(isSeries) };
    for (const [name, value] of Object.entries(fields)) form.set(name, value);
    for (const { id } of rows) form.append("conversation", id);
    post(form);
  };
  const problem = refused?.problem ?? Object.values(refused?.problems ?? {})[0];
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      size="wide"
      title={say("waiting.remindCorrespondents", { who: first?.who ?? "", count: rows.length })}
      description={say("waiting.itGoesInTheSame")}
    >
      <div className="space-y-3 overflow-y-auto px-4 py-3">
        <div className="flex flex-wrap items-center gap-2">
          <Select
            label={say("waiting.tone")}
            value={style.tone}
            onChoose={(tone) => choose({ tone })}
            choices={TONES.map((tone) => [tone, say(TONE_NAMES[tone])])}
          />
          <Select
            label={say("waiting.language")}
            value={style.language}
            onChoose={(language) => choose({ language })}
            choices={REMINDER_LANGUAGES.map((language) => [language, say(LANGUAGE_NAMES[language])])}
          />
          {own !== null && (
            <Button look="quiet" onClick={() => setOwn(null)}>
              {say("waiting.thePreparedTextAgain")}
            </Button>
          )}
        </div>
        <div>
          <label htmlFor="reminder-text" className="mb-1 block text-sm font-semibold">
            {rows.length === 1 || own !== null
              ? say("waiting.whatTheyRead")
              : say("waiting.whatReadsTheOthersLikewise", { who: first?.who ?? "" })}
          </label>
          <textarea
            id="reminder-text"
            rows={8}
            value={own ?? data?.text ?? ""}
            onChange={(event) => setOwn(event.target.value)}
            className="w-full rounded-control border border-rule bg-paper px-2.5 py-1.5 leading-6"
          />
          {own !== null && rows.length > 1 && (
            <p className="text-sm text-soft">{say("waiting.changedByHandItIs", { them: allOf(rows.length) })}</p>
          )}
        </div>
        <Tick checked={isSeries} onTick={setSeries}>
          {say("waiting.againAfter37And")}
        </Tick>
        <FormFoot problem={problem} onClose={onClose}>
          <Button look="filled" disabled={isBusy} onClick={plan}>
            {say("waiting.sendReminders", { count: rows.length })}
          </Button>
        </FormFoot>
      </div>
    </Dialog>
  );
}
