import { ArrowDown, ArrowUp } from "lucide-react";
import type { Rule } from "../../../core/rules/rule";
import { actionsInWords, conditionsInWords } from "../../../core/rules/rule-in-words";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { RulesOutcome } from "./rules-outcome";

/** A rule with the code of the record that it files to. */
export type ListedRule = Rule & { readonly code: string };

type RuleListProps = {
  readonly rules: readonly ListedRule[];
  readonly edited: string | null;
  readonly onEdit: (id: string | null) => void;
};

/** The rules of a tray in the order in which they are asked, each as a sentence. */
export function RuleList({ rules, edited, onEdit }: RuleListProps) {
  const say = useSay(officeTexts, commonTexts);
  const { mayLead } = useTray();
  const { post, refused, underWay } = useFormAction<RulesOutcome>("rules", ({ droppedId }) => {
    if (droppedId === null) return;
    notice(say("office.ruleRemoved"), {
      action: { label: say("common.undo"), onClick: () => post({ do: "bring-back", id: droppedId }) },
    });
  });
  const isOn = (rule: ListedRule) =>
    underWay?.get("do") === "switch" && underWay.get("id") === rule.id ? underWay.get("on") === "true" : rule.isOn;
  const swap = (at: number, other: number) => {
    const ids = rules.map(({ id }) => id as string);
    [ids[at], ids[other]] = [ids[other] ?? "", ids[at] ?? ""];
    post({ do: "place", ids: ids.join(" ") });
  };
  if (rules.length === 0) {
    return <p className="max-w-prose text-soft">{say("office.noRulesYetARule")}</p>;
  }
  return (
    <div>
      {refused !== null && (
        <p role="alert" className="pb-2 text-late">
          {refused.problem ?? Object.values(refused.problems)[0]}
        </p>
      )}
      <ol aria-label={say("office.rulesInTheirOrder")} className="border-t border-rule">
        {rules.map((rule, at) => (
          <li
            key={rule.id}
            className={`flex items-start gap-x-3 border-b max-sm:flex-wrap border-hair py-2 ${edited === rule.id ? "bg-act-soft" : ""}`}
          >
            <input
              type="checkbox"
              aria-label={say("office.isOn", { name: rule.name })}
              checked={isOn(rule)}
              disabled={!mayLead}
              onChange={(event) => post({ do: "switch", id: rule.id, on: String(event.target.checked) })}
              className="mt-1 ml-1 size-[14px] accent-act"
            />
            <Sentence rule={{ ...rule, isOn: isOn(rule) }} />
            {mayLead && (
              <span className="flex shrink-0 items-center max-sm:w-full max-sm:justify-end">
                <Button
                  look="quiet"
                  aria-label={say("common.moveUp", { name: rule.name })}
                  disabled={at === 0}
                  onClick={() => swap(at, at - 1)}
                  className="px-1.5"
                >
                  <ArrowUp size={14} aria-hidden />
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("common.moveDown", { name: rule.name })}
                  disabled={at === rules.length - 1}
                  onClick={() => swap(at, at + 1)}
                  className="px-1.5"
                >
                  <ArrowDown size={14} aria-hidden />
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("common.changeOf", { name: rule.name })}
                  onClick={() => onEdit(rule.id)}
                  className="px-2"
                >
                  {say("common.change")}
                </Button>
                <Button
                  look="quiet"
                  aria-label={say("common.removeOf", { name: rule.name })}
                  onClick={() => {
                    onEdit(null);
                    post({ do: "drop", id: rule.id });
                  }}
                  className="px-2"
                >
                  {say("common.remove")}
                </Button>
              </span>
            )}
          </li>
        ))}
      </ol>
    </div>
  );
}

function Sentence({ rule }: { rule: ListedRule }) {
  const say = useSay(officeTexts);
  const { members, categories } = useTray();
  const does = actionsInWords(rule.actions, {
    member: (id) => members.find((member) => member.id === id)?.name ?? say("office.somebodyWhoIsNoLonger"),
    category: (id) => categories.find((category) => category.id === id)?.name ?? say("office.aCategory"),
    record: () => rule.code,
  });
  const given = categories.filter(({ id, retired }) => retired && rule.actions.categoryIds.includes(id));
  return (
    <div className={`min-w-0 flex-1 max-sm:basis-3/4 ${rule.isOn ? "" : "text-soft"}`}>
      <p className="font-semibold">
        {rule.name}
        {!rule.isOn && <span className="font-normal"> {say("office.off")}</span>}
      </p>
      <p>
        {say("office.aMessage", {
          rule: conditionsInWords(rule),
          what: does.length === 0 ? say("office.doesNothing") : { all: does, by: "comma" },
        })}
        {rule.isLast && say("office.noLaterRuleApplies")}
      </p>
      {given.length > 0 && (
        <p className="text-sm text-soft">
          {given.map(({ name }) => name).join(", ")} {say("office.isRetiredAndNotGiven")}
        </p>
      )}
    </div>
  );
}
