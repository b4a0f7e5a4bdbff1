import type { ComponentProps } from "react";
import { rulesTexts } from "../../../texts/en/rules";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { RuleList } from "./rule-list";

type AnyRule = ComponentProps<typeof RuleList>["rules"][number] & { readonly isOwn: boolean };

/** All that is asked in a tray: its own rules, those of all trays that others keep, and the member's own. */
export function ListsOfRules({ rules }: { rules: readonly AnyRule[] }) {
  const say = useSay(rulesTexts);
  const { mayLead } = useTray();
  const own = rules.filter(({ isOwn }) => isOwn);
  const elsewhere = rules.filter(({ isOwn, keptIn }) => !isOwn && keptIn !== null);
  const here = rules.filter(({ isOwn, keptIn }) => !isOwn && keptIn === null);
  return (
    <div className="space-y-6">
      {here.length === 0 ? (
        <p className="max-w-prose text-soft">{say("rules.noRulesYetARule")}</p>
      ) : (
        <RuleList label={say("rules.rulesInTheirOrder")} rules={here} mayChange={mayLead} mayOrder={mayLead} />
      )}
      {elsewhere.length > 0 && (
        <section>
          <h2 className="font-serif text-[15px]">{say("rules.rulesOfAllTrays")}</h2>
          <RuleList label={say("rules.rulesOfAllTrays")} rules={elsewhere} mayChange={false} mayOrder={false} />
        </section>
      )}
      {own.length > 0 && (
        <section>
          <h2 className="font-serif text-[15px]">{say("rules.yourOwnRules")}</h2>
          <p className="pb-1 text-sm text-soft">{say("rules.ownRulesAre")}</p>
          <RuleList label={say("rules.yourOwnRules")} rules={own} mayChange mayOrder={false} />
        </section>
      )}
    </div>
  );
}
