import type { TextMatch } from "../../../core/rules/condition";
import { rulesTexts } from "../../../texts/en/rules";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { ValuesField } from "./values-field";

const HOWS = ["words", "phrase", "contains", "is", "like", "pattern"] as const;

type MatchFieldsProps = {
  readonly match: TextMatch;
  readonly hasProblem: boolean;
  readonly onChange: (match: TextMatch) => void;
};

/** How a text is compared, and with what. */
export function MatchFields({ match, hasProblem, onChange }: MatchFieldsProps) {
  const say = useSay(rulesTexts);
  return (
    <>
      <Select
        label={say("rules.how")}
        value={match.how}
        choices={HOWS.map((how) => [how, say("rules.howMatched", { how })] as const)}
        onChoose={(how) => onChange({ ...match, how: how as TextMatch["how"] })}
      />
      <ValuesField
        label={say("rules.values")}
        values={match.values}
        placeholder={say("rules.valueLike", { how: match.how })}
        problem={hasProblem}
        onValues={(values) => onChange({ ...match, values })}
      />
    </>
  );
}
