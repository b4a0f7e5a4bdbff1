import { historyTexts } from "../../texts/en/history";
import { type Said, saidOf } from "../../texts/said";
import { ON_ARRIVAL, type Rule } from "./rule";

const said = saidOf(historyTexts);

type Compared = Omit<Rule, "id" | "version">;

/** What somebody did to a rule from one version to the next, as predicates of a sentence about them; null: it is the first. */
export function ruleChanges(before: Compared | null, after: Compared): Said[] {
  if (before === null) return [said("history.madeIt")];
  const changed = (part: (rule: Compared) => unknown) => JSON.stringify(part(before)) !== JSON.stringify(part(after));
  return [
    ...(changed(({ name }) => name) ? [said("history.renamedIt", { before: before.name })] : []),
    ...(changed(({ isOn }) => isOn) ? [after.isOn ? said("history.switchedItOn") : said("history.switchedItOff")] : []),
    ...(changed(({ times = ON_ARRIVAL }) => times) ? [said("history.changedWhen")] : []),
    ...(changed(({ condition }) => condition) ? [said("history.changedWhich")] : []),
    ...(changed(({ exception }) => exception) ? [said("history.changedExceptions")] : []),
    ...(changed(({ actions }) => actions) ? [said("history.changedWhat")] : []),
    ...(changed(({ isLast }) => isLast)
      ? [after.isLast ? said("history.madeItLast") : said("history.madeItNotLast")]
      : []),
  ];
}
