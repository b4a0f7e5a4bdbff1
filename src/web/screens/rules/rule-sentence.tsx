import { actionInWords } from "../../../core/rules/action-in-words";
import { whichMessagesInWords } from "../../../core/rules/condition-in-words";
import type { Rule, RuleMoment } from "../../../core/rules/rule";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";
import { useRuleNames } from "./use-rule-names";

type RuleSentenceProps = {
  readonly rule: Pick<Rule, "condition" | "exception" | "actions"> & { readonly moment: RuleMoment };
};

/** What a rule is for and does, as a sentence. */
export function RuleSentence({ rule }: RuleSentenceProps) {
  const say = useSay(rulesTexts);
  const names = useRuleNames();
  const does = rule.actions.map((action) => actionInWords(action, names));
  return say("rules.sentence", {
    moment: rule.moment,
    which: whichMessagesInWords(rule, names),
    what: does.length === 0 ? say("rules.doesNothing") : { all: does, by: "and" },
  });
}
