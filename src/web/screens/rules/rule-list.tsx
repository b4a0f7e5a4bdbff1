import { ArrowDown, ArrowUp } from "lucide-react";
import { Link } from "react-router";
import { isStopped, type NamedKind } from "../../../core/rules/gone-names";
import type { Rule, RuleMoment } from "../../../core/rules/rule";
import { commonTexts } from "../../../texts/en/common";
import { historyTexts } from "../../../texts/en/history";
import { rulesTexts } from "../../../texts/en/rules";
import { Button, QUIET_LINK } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useKeptList } from "../forms/use-kept-list";
import { useTray } from "../frame/tray-data";
import { RuleSentence } from "./rule-sentence";

/** A rule, and the kinds of things of which it names one that is no more, so that it is stopped. */
type ListedRule = Omit<Rule, "times"> & {
  readonly gone: readonly NamedKind[];
  readonly moment: RuleMoment;
  /** When it is asked, where that is not whenever a message comes; empty otherwise. */
  readonly times: string;
  /** The tray that keeps it, where that is another one. */
  readonly keptIn: string | null;
};

type RuleListProps = {
  readonly label: string;
  readonly rules: readonly ListedRule[];
  /** Whether one may change them, and put them in another order. */
  readonly mayChange: boolean;
  readonly mayOrder: boolean;
};

/** Rules in the order in which they are asked, each as a sentence. */
export function RuleList({ label, rules, mayChange, mayOrder }: RuleListProps) {
  const say = useSay(rulesTexts, commonTexts);
  const { tray } = useTray();
  const { post, problem, isOn, switches, removes } = useKeptList("rules", say("rules.ruleRemoved"));
  const swap = (at: number, other: number) => {
    const ids = rules.map(({ id }) => id as string);
    [ids[at], ids[other]] = [ids[other] ?? "", ids[at] ?? ""];
    post({ do: "place", ids: ids.join(" ") });
  };
  return (
    <div>
      {problem !== null && (
        <p role="alert" className="pb-2 text-late">
          {problem}
        </p>
      )}
      <ol aria-label={label} className="border-t border-rule">
        {rules.map((rule, at) => (
          <li key={rule.id} className="flex items-start gap-x-3 border-b max-sm:flex-wrap border-hair py-2">
            <input
              type="checkbox"
              aria-label={say("rules.isOn", { name: rule.name })}
              checked={isOn(rule)}
              disabled={!mayChange || rule.keptIn !== null}
              onChange={(event) => switches(rule.id, event.target.checked)}
              className="mt-1 ml-1 size-[14px] accent-act"
            />
            <Sentence rule={{ ...rule, isOn: isOn(rule) }} />
            {mayChange && rule.keptIn === null && (
              <span className="flex shrink-0 items-center max-sm:w-full max-sm:justify-end">
                {mayOrder && (
                  <>
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
                  </>
                )}
                <Link
                  to={`/${tray.slug}/rules/${rule.id}`}
                  aria-label={say("common.changeOf", { name: rule.name })}
                  className={`${QUIET_LINK} px-2`}
                >
                  {say("common.change")}
                </Link>
                <Button
                  look="quiet"
                  aria-label={say("common.removeOf", { name: rule.name })}
                  onClick={() => removes(rule.id)}
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
  const say = useSay(rulesTexts, historyTexts);
  const { tray, categories } = useTray();
  const given = rule.actions.flatMap((action) =>
    action.kind === "categorise" && action.give ? [action.categoryId] : [],
  );
  const retired = categories.filter((category) => category.retired && given.some((id) => id === category.id));
  return (
    <div className={`min-w-0 flex-1 max-sm:basis-3/4 ${rule.isOn ? "" : "text-soft"}`}>
      <p className="font-semibold">
        <span>{rule.name}</span>
        {!rule.isOn && <span className="font-normal"> {say("rules.off")}</span>}
        <Link
          to={`/${tray.slug}/rules/${rule.id}/history`}
          aria-label={say("history.whatRuleDid", { name: rule.name })}
          className="ms-3 text-sm font-normal text-act underline-offset-2 hover:underline"
        >
          {say("history.whatItDid")}
        </Link>
      </p>
      <p>
        <RuleSentence rule={rule} />
        {rule.isLast && say("rules.noLaterRuleApplies")}
      </p>
      {rule.times !== "" && <p className="text-sm text-soft">{rule.times}</p>}
      {rule.isEverywhere === true && (
        <p className="text-sm text-soft">
          {rule.keptIn === null ? say("rules.ofAllTrays") : say("rules.keptIn", { tray: rule.keptIn })}
        </p>
      )}
      {rule.isOn && rule.gone.length > 0 && <p className="text-sm text-late">{say(isStopped(rule.gone))}</p>}
      {retired.length > 0 && (
        <p className="text-sm text-soft">
          {retired.map(({ name }) => name).join(", ")} {say("rules.isRetiredAndNotGiven")}
        </p>
      )}
    </div>
  );
}
