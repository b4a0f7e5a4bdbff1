import { Link } from "react-router";
import { isStopped } from "../../../core/rules/gone-names";
import { historyTexts } from "../../../texts/en/history";
import { rulesTexts } from "../../../texts/en/rules";
import type { HistoryView } from "../../server/rules/history-view.server";
import { BUTTON_LINK, QUIET_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { useTray } from "../frame/tray-data";
import { JournalStep } from "../office/journal-step";
import { MonthBars } from "../rule-trial/month-bars";
import { RuleSentence } from "../rules/rule-sentence";
import { RuleVersions } from "./rule-versions";

/** What a rule did, how often that was taken back, and how it came to be what it is. */
export function RuleHistoryScreen({ history }: { history: HistoryView }) {
  const say = useSay(rulesTexts, historyTexts);
  const { tray } = useTray();
  const { undo } = useDecisions();
  const { rule, steps } = history;
  return (
    <Page
      title={say("history.whatRuleDid", { name: rule.name })}
      beside={
        <span className="ms-auto flex flex-wrap items-center gap-x-3">
          <Link to={`/${tray.slug}/rules`} className={QUIET_LINK}>
            {say("rules.rules")}
          </Link>
          {history.mayChange && (
            <Link to={`/${tray.slug}/rules/${rule.id}`} className={BUTTON_LINK}>
              {say("history.changeTheRule")}
            </Link>
          )}
        </span>
      }
    >
      <div className="grid min-h-full grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(320px,400px)]">
        <div className="min-w-0">
          <div className="space-y-3 px-5 py-4">
            <p className="max-w-3xl font-serif text-[17px] leading-snug">
              <RuleSentence rule={rule} />
              {!rule.isOn && <span className="text-soft"> {say("rules.off")}</span>}
            </p>
            {rule.times !== "" && <p className="text-soft">{rule.times}</p>}
            {rule.isOn && rule.gone.length > 0 && <p className="text-late">{say(isStopped(rule.gone))}</p>}
            <Figures history={history} />
          </div>
          <section aria-label={say("history.steps")} className="border-t border-rule">
            {steps.length === 0 && <p className="px-5 py-4 text-soft">{say("history.didNothingYet")}</p>}
            <ol>
              {steps.map((step, at) => (
                <JournalStep
                  key={step.batchId}
                  step={step}
                  isByOne
                  heading={step.day === steps[at - 1]?.day ? null : step.day}
                  onUndo={() => undo(step.batchId)}
                />
              ))}
            </ol>
            {history.before !== null && (
              <p className="px-4 py-3">
                <Link to={`?before=${history.before}`} className={QUIET_LINK}>
                  {say("history.earlierSteps")}
                </Link>
              </p>
            )}
          </section>
        </div>
        <RuleVersions ruleId={rule.id} mayUndo={history.mayUndo} versions={history.versions} />
      </div>
    </Page>
  );
}

function Figures({ history: { lately, earlier, ever, months } }: { history: HistoryView }) {
  const say = useSay(historyTexts);
  if (ever.did === 0) return null;
  const rows = [
    [say("history.lastFourWeeks"), lately],
    [say("history.twelveWeeksBefore"), earlier],
    [say("history.ever"), ever],
  ] as const;
  return (
    <div className="flex flex-wrap items-end gap-x-10 gap-y-3">
      <table className="text-sm">
        <thead>
          <tr className="text-soft">
            <th scope="col">
              <span className="sr-only">{say("history.when")}</span>
            </th>
            <th scope="col" className="ps-6 text-end font-normal">
              {say("history.acted")}
            </th>
            <th scope="col" className="ps-6 text-end font-normal">
              {say("history.takenBack")}
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([when, { did, undone }]) => (
            <tr key={when}>
              <th scope="row" className="text-start font-normal">
                {when}
              </th>
              <td className="ps-6 text-end tabular-nums">{did}</td>
              <td className="ps-6 text-end tabular-nums">
                {undone === 0 ? undone : say("history.share", { count: undone, share: undone / did })}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <MonthBars months={months} />
    </div>
  );
}
