import { ArrowDown, ArrowUp } from "lucide-react";
import type { Rule } from "../../../core/rules/rule";
import { actionsInWords, conditionsInWords } from "../../../core/rules/rule-in-words";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { useTray } from "../frame/tray-data";
import { useStep } from "../frame/use-step";
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
  const { mayLead } = useTray();
  const { post, refused, underWay } = useStep<RulesOutcome>("rules", ({ droppedId }) => {
    if (droppedId === null) return;
    notice("Rule removed", { action: { label: "Undo", onClick: () => post({ do: "bring-back", id: droppedId }) } });
  });
  const isOn = (rule: ListedRule) =>
    underWay?.get("do") === "switch" && underWay.get("id") === rule.id ? underWay.get("on") === "true" : rule.isOn;
  const swap = (at: number, other: number) => {
    const ids = rules.map(({ id }) => id as string);
    [ids[at], ids[other]] = [ids[other] ?? "", ids[at] ?? ""];
    post({ do: "place", ids: ids.join(" ") });
  };
  if (rules.length === 0) {
    return (
      <p className="max-w-prose text-soft">
        No rules yet. A rule looks at each message as it comes and does what you would do anyway: gives a category,
        files it, assigns it. What it did is in the journal, with the reason, and can be undone there.
      </p>
    );
  }
  return (
    <div>
      {refused !== null && (
        <p role="alert" className="pb-2 text-late">
          {refused.problem ?? Object.values(refused.problems)[0]}
        </p>
      )}
      <ol aria-label="Rules in their order" className="border-t border-rule">
        {rules.map((rule, at) => (
          <li
            key={rule.id}
            className={`flex items-start gap-3 border-b border-hair py-2 ${edited === rule.id ? "bg-act-soft" : ""}`}
          >
            <input
              type="checkbox"
              aria-label={`${rule.name} is on`}
              checked={isOn(rule)}
              disabled={!mayLead}
              onChange={(event) => post({ do: "switch", id: rule.id, on: String(event.target.checked) })}
              className="mt-1 ml-1 size-[14px] accent-act"
            />
            <Sentence rule={{ ...rule, isOn: isOn(rule) }} />
            {mayLead && (
              <span className="flex shrink-0 items-center">
                <Button
                  look="quiet"
                  aria-label={`Move ${rule.name} up`}
                  disabled={at === 0}
                  onClick={() => swap(at, at - 1)}
                  className="px-1.5"
                >
                  <ArrowUp size={14} aria-hidden />
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Move ${rule.name} down`}
                  disabled={at === rules.length - 1}
                  onClick={() => swap(at, at + 1)}
                  className="px-1.5"
                >
                  <ArrowDown size={14} aria-hidden />
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Change ${rule.name}`}
                  onClick={() => onEdit(rule.id)}
                  className="px-2"
                >
                  Change
                </Button>
                <Button
                  look="quiet"
                  aria-label={`Remove ${rule.name}`}
                  onClick={() => {
                    onEdit(null);
                    post({ do: "drop", id: rule.id });
                  }}
                  className="px-2"
                >
                  Remove
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
  const { members, categories } = useTray();
  const does = actionsInWords(rule.actions, {
    member: (id) => members.find((member) => member.id === id)?.name ?? "somebody who is no longer here",
    category: (id) => categories.find((category) => category.id === id)?.name ?? "a category",
    record: () => rule.code,
  });
  const given = categories.filter(({ id, retired }) => retired && rule.actions.categoryIds.includes(id));
  return (
    <div className={`min-w-0 flex-1 ${rule.isOn ? "" : "text-soft"}`}>
      <p className="font-semibold">
        {rule.name}
        {!rule.isOn && <span className="font-normal"> · off</span>}
      </p>
      <p>
        A message {conditionsInWords(rule)}: {does.length === 0 ? "does nothing" : does.join(", ")}.
        {rule.isLast && " No later rule applies."}
      </p>
      {given.length > 0 && (
        <p className="text-sm text-soft">
          {given.map(({ name }) => name).join(", ")} is retired and not given any more.
        </p>
      )}
    </div>
  );
}
