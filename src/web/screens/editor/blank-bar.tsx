import { type Editor, useEditorState } from "@tiptap/react";
import { useContext } from "react";
import { type Blank, CHOICES_ATTRIBUTE, DAYS_ATTRIBUTE } from "../../../core/templates/blank";
import { datesOf } from "../../../core/templates/greeting";
import { templatesTexts } from "../../../texts/en/templates";
import { KeyCap } from "../../ui/button";
import { LocaleContext, useSay } from "../../ui/texts/use-say";
import { CustomDate } from "../deciding/custom-date";
import { useTray } from "../frame/tray-data";
import { placesToFill, selectedBlank } from "./blank-node";

const BAR = "flex min-h-9 flex-wrap items-center gap-x-2 gap-y-1 border-b border-hair bg-ground px-3 py-1 text-sm";
const OFFER = "min-h-7 rounded-control border border-rule bg-paper px-2 hover:border-act";
const LINE = "h-7 rounded-control border border-rule bg-paper px-2";

/** What is asked for in the blank that is chosen, or how many are left; nothing where the text has none. */
export function BlankBar({ editor }: { readonly editor: Editor }) {
  const say = useSay(templatesTexts);
  const { blank, count } = useEditorState({ editor, selector: ({ editor: now }) => inEditor(now) });
  if (count === 0) return null;
  if (blank === null) {
    return (
      <p role="status" className={BAR}>
        <b className="font-semibold text-late">{say("templates.blanksLeft", { count })}</b>
        {say("templates.tabGoesOn")}
      </p>
    );
  }
  return (
    <fieldset className={BAR} aria-label={blank.label}>
      <b className="font-semibold">{blank.label}</b>
      <Offers blank={blank} fill={(text) => editor.chain().focus().insertContent({ type: "text", text }).run()} />
      <span className="ms-auto text-soft">{say("templates.blanksLeft", { count })}</span>
    </fieldset>
  );
}

type OffersProps = { readonly blank: Blank; readonly fill: (text: string) => void };

function Offers({ blank, fill }: OffersProps) {
  const say = useSay(templatesTexts);
  const { dateChoices } = useTray();
  const locale = useContext(LocaleContext);
  const dateOf = (day: string) =>
    new Intl.DateTimeFormat(datesOf(locale), {
      weekday: "long",
      day: "numeric",
      month: "long",
      timeZone: "UTC",
    }).format(new Date(day));
  switch (blank.kind) {
    case "choice":
      return blank.choices.map((choice, at) => (
        <button key={choice} type="button" className={OFFER} onClick={() => fill(choice)}>
          {choice} {at < 9 && <KeyCap>{String(at + 1)}</KeyCap>}
        </button>
      ));
    case "date":
      return (
        <>
          {dateChoices.map(({ day, label }) => (
            <button key={day} type="button" title={label} className={OFFER} onClick={() => fill(dateOf(day))}>
              {dateOf(day)}
            </button>
          ))}
          <CustomDate label={say("templates.anotherDay")} onChoose={(day) => fill(dateOf(day.slice(0, 10)))} />
        </>
      );
    case "number":
      return <span className="text-soft">{say("templates.typeANumber")}</span>;
    default:
      return <span className="text-soft">{say("templates.typeWhatBelongs")}</span>;
  }
}

/** What the blank that is chosen asks for, to be said where a template is written. */
export function BlankFields({ editor }: { readonly editor: Editor }) {
  const say = useSay(templatesTexts);
  const { blank, at } = useEditorState({ editor, selector: ({ editor: now }) => inEditor(now) });
  if (blank === null) return null;
  // By itself, the editor would put another blank in its place, which then is not chosen.
  const set = (name: string, value: string) =>
    editor.commands.command(({ tr }) => Boolean(tr.setNodeAttribute(at, name, value)));
  return (
    <fieldset className={BAR} aria-label={say("templates.theBlank")}>
      <label className="flex items-center gap-1.5">
        {say("templates.whatBelongs")}
        <input value={blank.label} onChange={(event) => set("label", event.target.value)} className={`${LINE} w-52`} />
      </label>
      {blank.kind === "choice" && (
        <label className="flex items-center gap-1.5">
          {say("templates.choices")}
          <input
            defaultValue={blank.choices.join(" | ")}
            onChange={(event) => set(CHOICES_ATTRIBUTE, event.target.value)}
            className={`${LINE} w-64`}
          />
        </label>
      )}
      {(blank.kind === "in-days" || blank.kind === "in-working-days") && (
        <label className="flex items-center gap-1.5">
          {say(blank.kind === "in-days" ? "templates.daysAhead" : "templates.workingDaysAhead")}
          <input
            type="number"
            min={1}
            max={365}
            value={blank.days}
            onChange={(event) => set(DAYS_ATTRIBUTE, event.target.value)}
            className={`${LINE} w-20`}
          />
        </label>
      )}
    </fieldset>
  );
}

function inEditor({ state }: Editor) {
  const chosen = selectedBlank(state);
  return { blank: chosen?.blank ?? null, at: chosen?.at ?? 0, count: placesToFill(state).length };
}
