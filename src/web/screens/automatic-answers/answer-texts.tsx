import { ArrowDown, ArrowUp, Plus, X } from "lucide-react";
import type { ReactNode } from "react";
import { answersTexts } from "../../../texts/en/answers";
import { commonTexts } from "../../../texts/en/common";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { problemsWithin } from "../forms/problems-within";
import type { FormProblems } from "../forms/use-form-action";
import { ADD_BUTTON, ConditionEditor } from "../rules/condition-editor";
import { blankTest, type EditedGroup, newGroup, newTest } from "../rules/edited-condition";

/** A text of an answer while it is edited, with a key that stays while others change around it. */
export type EditedText = {
  readonly key: string;
  readonly condition: EditedGroup;
  readonly text: string;
  readonly copiesCover: boolean;
};

type AnswerTextsProps = {
  readonly texts: readonly EditedText[];
  readonly problems: FormProblems;
  /** Whether it is about a colleague who is away: whoever covers for them can have a copy. */
  readonly isAboutAbsence: boolean;
  readonly newKey: () => string;
  readonly onChange: (texts: readonly EditedText[]) => void;
};

/** What is answered to which messages, the first that is for a message counting. */
export function AnswerTexts({ texts, problems, isAboutAbsence, newKey, onChange }: AnswerTextsProps) {
  const say = useSay(answersTexts, commonTexts);
  const change = (key: string, changed: Partial<EditedText>) =>
    onChange(texts.map((one) => (one.key === key ? { ...one, ...changed } : one)));
  const move = (at: number, by: number) => {
    const moved = [...texts];
    const [one] = moved.splice(at, 1);
    if (one !== undefined) moved.splice(at + by, 0, one);
    onChange(moved);
  };
  const add = () => {
    const condition = newGroup("all", [newTest(blankTest("address"))]);
    onChange([{ key: newKey(), condition, text: "", copiesCover: isAboutAbsence }, ...texts]);
  };
  return (
    <div className="space-y-2">
      {texts.length > 1 && <p className="text-sm text-soft">{say("answers.theFirstCounts")}</p>}
      <ol className="space-y-3">
        {texts.map(({ key, condition, text, copiesCover }, at) => {
          const label = say("answers.textNumber", { at: at + 1 });
          return (
            <li key={key} className="rounded-sheet border border-rule px-3 py-2.5">
              {texts.length > 1 && (
                <div className="mb-1 flex items-center">
                  <span className="text-sm font-semibold">{label}</span>
                  <span className="ms-auto flex">
                    <Small
                      label={say("common.moveUp", { name: label })}
                      disabled={at === 0}
                      onClick={() => move(at, -1)}
                    >
                      <ArrowUp size={14} aria-hidden />
                    </Small>
                    <Small
                      label={say("common.moveDown", { name: label })}
                      disabled={at === texts.length - 1}
                      onClick={() => move(at, 1)}
                    >
                      <ArrowDown size={14} aria-hidden />
                    </Small>
                    <Small
                      label={say("common.removeOf", { name: label })}
                      disabled={false}
                      onClick={() => onChange(texts.filter((one) => one.key !== key))}
                    >
                      <X size={14} aria-hidden />
                    </Small>
                  </span>
                </div>
              )}
              <ConditionEditor
                label={say("answers.toWhichMessages", { at: at + 1 })}
                group={condition}
                problems={problemsWithin(problems, `texts.${at}.condition`)}
                onChange={(group) => change(key, { condition: group })}
              />
              <textarea
                aria-label={say("answers.theTextOf", { at: at + 1 })}
                aria-invalid={problems[`texts.${at}`] !== undefined}
                value={text}
                rows={5}
                placeholder={say("answers.forExample")}
                onChange={(event) => change(key, { text: event.target.value })}
                className="mt-2 block w-full rounded-control border border-rule bg-paper px-2.5 py-2 placeholder:text-soft aria-invalid:border-late"
              />
              {problems[`texts.${at}`] !== undefined && (
                <p className="mt-1 text-sm text-late">{problems[`texts.${at}`]}</p>
              )}
              {isAboutAbsence && (
                <Tick checked={copiesCover} onTick={(isOn) => change(key, { copiesCover: isOn })} className="mt-2">
                  {say("answers.copyToWhoeverCovers")}
                </Tick>
              )}
            </li>
          );
        })}
      </ol>
      {problems.texts !== undefined && <p className="text-sm text-late">{problems.texts}</p>}
      <p className="text-sm text-soft">{say("answers.blanksAre")}</p>
      <button type="button" onClick={add} className={ADD_BUTTON}>
        <Plus size={14} aria-hidden />
        {say("answers.addAText")}
      </button>
    </div>
  );
}

function Small({ label, ...rest }: { label: string; disabled: boolean; onClick: () => void; children: ReactNode }) {
  return <Button look="quiet" aria-label={label} className="px-1.5" {...rest} />;
}
