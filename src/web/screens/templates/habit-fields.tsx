import type { TemplateHabits } from "../../../core/templates/template";
import { templatesTexts } from "../../../texts/en/templates";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import type { FormProblems } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { NumberField } from "../rules/chosen-ones";

type HabitFieldsProps = {
  readonly habits: TemplateHabits;
  readonly problems: FormProblems;
  readonly onChange: (habits: TemplateHabits) => void;
};

const USUAL_DAYS = 5;

/** What is done with a letter that begins with a template. */
export function HabitFields({ habits, problems, onChange }: HabitFieldsProps) {
  const say = useSay(templatesTexts);
  const categories = useTray().categories.filter(({ retired }) => !retired);
  const { expectDays, followUp, categoryIds = [] } = habits;
  const days = say("templates.workingDays");
  return (
    <fieldset className="space-y-2">
      <legend className="text-sm font-semibold">{say("templates.whatGoesWithIt")}</legend>
      <div>
        <Tick
          checked={expectDays !== undefined}
          onTick={(isOn) => onChange(isOn ? { ...habits, expectDays: USUAL_DAYS } : without(habits, "expectDays"))}
        >
          {say("templates.expectAReply")}
        </Tick>
        {expectDays !== undefined && (
          <NumberField
            label={say("templates.replyWithin")}
            value={expectDays}
            unit={days}
            problem={problems.expectDays !== undefined}
            onNumber={(count) => onChange({ ...habits, expectDays: Math.round(count) })}
          />
        )}
        <Problem text={problems.expectDays} />
      </div>
      <div className="space-y-1.5">
        <Tick
          checked={followUp !== undefined}
          onTick={(isOn) =>
            onChange(isOn ? { ...habits, followUp: { days: USUAL_DAYS, text: "" } } : without(habits, "followUp"))
          }
        >
          {say("templates.setAFollowUp")}
        </Tick>
        {followUp !== undefined && (
          <>
            <NumberField
              label={say("templates.followUpAfter")}
              value={followUp.days}
              unit={days}
              problem={false}
              onNumber={(count) => onChange({ ...habits, followUp: { ...followUp, days: Math.round(count) } })}
            />
            <Field
              label={say("templates.whatToFollowUp")}
              value={followUp.text}
              onChange={(event) => onChange({ ...habits, followUp: { ...followUp, text: event.target.value } })}
              problem={problems.followUp}
              autoComplete="off"
            />
          </>
        )}
      </div>
      {categories.length > 0 && (
        <div>
          <p className="pb-1 text-sm">{say("templates.addsCategories")}</p>
          <div className="max-h-44 overflow-y-auto border-y border-hair py-1">
            {categories.map(({ id, name }) => (
              <Tick
                key={id}
                checked={categoryIds.includes(id)}
                onTick={(isOn) =>
                  onChange({
                    ...habits,
                    categoryIds: isOn ? [...categoryIds, id] : categoryIds.filter((one) => one !== id),
                  })
                }
              >
                {name}
              </Tick>
            ))}
          </div>
        </div>
      )}
    </fieldset>
  );
}

function without(habits: TemplateHabits, name: keyof TemplateHabits): TemplateHabits {
  return Object.fromEntries(Object.entries(habits).filter(([one]) => one !== name));
}

function Problem({ text }: { readonly text: string | undefined }) {
  return text === undefined ? null : <p className="mt-1 text-sm text-late">{text}</p>;
}
