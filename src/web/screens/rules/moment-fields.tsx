import { RULE_MOMENTS, type RuleMoment } from "../../../core/rules/rule";
import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { SpanFields } from "../forms/span-fields";
import type { FormProblems } from "../forms/use-form-action";
import type { WrittenRule } from "../rule-trial/written-rule";

type MomentFieldsProps = {
  readonly times: WrittenRule["times"];
  readonly problems: FormProblems;
  readonly onChange: (changed: Partial<WrittenRule["times"]>) => void;
};

/** At which moments a rule is asked, and from when until when. */
export function MomentFields({ times, problems, onChange }: MomentFieldsProps) {
  const say = useSay(rulesTexts);
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Select
        label={say("rules.whenItIsAsked")}
        value={times.moment}
        choices={RULE_MOMENTS.map((moment) => [moment, say("rules.atMoment", { moment })] as const)}
        onChoose={(moment) => onChange({ moment: moment as RuleMoment })}
      />
      <SpanFields
        span={times}
        labels={{ from: say("rules.fromOptional"), until: say("rules.untilOptional") }}
        problems={problems}
        onChange={onChange}
      />
    </div>
  );
}
