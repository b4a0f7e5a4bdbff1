import type { RuleNames } from "../../../core/rules/condition-in-words";
import { rulesTexts } from "../../../texts/en/rules";
import { saidOf } from "../../../texts/said";
import { useTray } from "../frame/tray-data";
import { useNamesHere } from "./named-here";

const said = saidOf(rulesTexts);

/** What the things are called that rules name: records and contacts stand in them by their codes and addresses here. */
export function useRuleNames(): RuleNames {
  const { members, categories, groups } = useTray();
  const { rounds, templates } = useNamesHere();
  return {
    member: (id) => members.find((one) => one.id === id)?.name ?? said("rules.aFormerColleague"),
    category: (id) => categories.find((one) => one.id === id)?.name ?? said("rules.aFormerCategory"),
    record: (code) => code || said("rules.aRecord"),
    contact: (text) => text || said("rules.aFormerContact"),
    round: (id) => rounds.find((one) => one.id === id)?.name ?? said("rules.aFormerRound"),
    group: (id) => groups.find((one) => one.id === id)?.name ?? said("rules.aFormerGroup"),
    template: (id) => templates.find((one) => one.id === id)?.name ?? said("rules.aFormerTemplate"),
  };
}
