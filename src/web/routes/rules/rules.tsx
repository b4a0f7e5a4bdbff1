import { data, Link } from "react-router";
import type { Result } from "../../../core/kernel/result";
import { ON_ARRIVAL } from "../../../core/rules/rule";
import { timesInWords } from "../../../core/rules/times-in-words";
import {
  type Deps,
  dropRule,
  editRule,
  endRuleProposal,
  getRuleProposals,
  getRules,
  getStoppedRules,
  namesForRules,
  placeRules,
  type RuleRefusal,
  rulesAsWritten,
  startRuleRun,
  type TrayGrant,
  tryRule,
} from "../../../operations/index.server";
import { rulesTexts } from "../../../texts/en/rules";
import { useTray } from "../../screens/frame/tray-data";
import { ProposedRules } from "../../screens/rule-history/proposed-rules";
import type { RulesOutcome } from "../../screens/rule-trial/rules-outcome";
import { ListsOfRules } from "../../screens/rules/lists-of-rules";
import { NamedHere } from "../../screens/rules/named-here";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { type RuleStep, readRuleStep, ruleProblemsByField } from "../../server/rules/rule-form.server";
import { type TrialView, trialView } from "../../server/rules/trial-view.server";
import { BUTTON_LINK, QUIET_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/rules";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, rulesTexts, "rules.rules");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const rules = await rulesAsWritten(deps, grant, await getRules(deps, grant));
  const stopped = await getStoppedRules(deps, grant);
  const { timeZone } = context.get(memberContext);
  return {
    names: await namesForRules(deps, grant),
    proposals: (await getRuleProposals(deps, grant)).map(({ id, source, putAway, count, conversationIds }) => {
      return { id, source, putAway, count, from: conversationIds.join() };
    }),
    rules: rules.map(({ id, name, isOn, isLast, condition, exception, actions, times = ON_ARRIVAL, ...whose }) => {
      const when = speak({ all: timesInWords({ times }, deps.now(), timeZone), by: "comma" });
      const rule = { id, name, isOn, isLast, condition, exception, actions, gone: stopped.get(id) ?? [] };
      const { memberId, isEverywhere = false, keptIn } = whose;
      return { ...rule, isOwn: memberId !== undefined, isEverywhere, keptIn, moment: times.moment, times: when };
    }),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const zone = context.get(memberContext).timeZone;
  const step = await readRuleStep(deps, grant, await readForm(request), zone);
  if (!step.ok) return data<RulesOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carry(deps, grant, step.value, zone);
  if (done.ok)
    return data<RulesOutcome>({ ok: true, said: "", trial: null, droppedId: null, declinedId: null, ...done.value });
  return data<RulesOutcome>({ ok: false, ...refusedWith(done.error) }, { status: 409 });
}

function refusedWith(error: RuleRefusal): Pick<Extract<RulesOutcome, { ok: false }>, "problems" | "problem"> {
  if (error.kind === "problems") return { problems: ruleProblemsByField(error.problems), problem: null };
  if (error.kind !== "sweeping") return { problems: {}, problem: refusalSaid(error) };
  return { problems: { "tray-name": speak("rules.wouldSweep", error) }, problem: null };
}

type Said = {
  readonly said?: string;
  readonly trial?: TrialView;
  readonly droppedId?: string;
  readonly declinedId?: string;
  readonly problems?: Readonly<Record<string, string>>;
};

async function carry(deps: Deps, grant: TrayGrant, step: RuleStep, zone: string): Promise<Result<Said, RuleRefusal>> {
  const saying = <T,>(done: Result<T, RuleRefusal>, said: Said): Result<Said, RuleRefusal> =>
    done.ok ? { ok: true, value: said } : done;
  switch (step.do) {
    case "keep":
    case "keep-and-run": {
      const kept = await editRule(deps, grant, step.rule, step.typedName);
      if (!kept.ok) return kept;
      if (step.proposalId !== null) await endRuleProposal(deps, grant, step.proposalId);
      if (step.do === "keep") return saying(kept, { said: speak("rules.ruleSaved") });
      const words = speak("rules.runOverAll", { name: step.rule.name });
      return saying(await startRuleRun(deps, grant, kept.value, words), { said: speak("rules.ruleSaved") });
    }
    case "try": {
      const tried = await tryRule(deps, grant, step.rule, step.before);
      if (!tried.ok) return { ok: false, error: { kind: "problems", problems: tried.error } };
      return { ok: true, value: { trial: trialView(tried.value, deps.now(), zone) } };
    }
    case "drop":
      return saying(await dropRule(deps, grant, step.id, true), { droppedId: step.id });
    case "bring-back":
      return saying(await dropRule(deps, grant, step.id, false), { said: speak("rules.ruleBroughtBack") });
    case "decline":
      return saying(await endRuleProposal(deps, grant, step.proposalId), { declinedId: step.proposalId });
    case "propose-again":
      return saying(await endRuleProposal(deps, grant, step.proposalId, false), {});
    case "place":
      return saying(await placeRules(deps, grant, step.ids), {});
    case "switch": {
      const rule = (await getRules(deps, grant)).find(({ id }) => id === step.id);
      if (rule === undefined) return { ok: false, error: { kind: "no-such", what: "rule" } };
      const said = step.isOn ? speak("rules.ruleSwitchedOn") : speak("rules.ruleSwitchedOff");
      return saying(await editRule(deps, grant, { ...rule, isOn: step.isOn }), { said });
    }
  }
}

/** What the tray does by itself when a message comes; those who lead it say so, everybody reads it. */
export default function Rules({ loaderData: { rules, names, proposals } }: Route.ComponentProps) {
  const say = useSay(rulesTexts);
  const { tray, mayLead } = useTray();
  return (
    <Page
      title={say("rules.rules")}
      beside={
        mayLead ? (
          <span className="ms-auto flex flex-wrap items-center gap-x-3">
            <Link to={`/${tray.slug}/rounds`} className={QUIET_LINK}>
              {say("rules.rounds")}
            </Link>
            <Link to={`/${tray.slug}/rules/import`} className={QUIET_LINK}>
              {say("rules.bringInAScript")}
            </Link>
            <a href={`/${tray.slug}/rules.sieve`} className={QUIET_LINK}>
              {say("rules.asAScript")}
            </a>
            <Link to={`/${tray.slug}/rules/new`} className={BUTTON_LINK}>
              {say("rules.newRule")}
            </Link>
          </span>
        ) : (
          <span className="ms-auto flex flex-wrap items-center gap-x-3">
            <span className="text-soft">{say("rules.onlyLeadsOfTheTray")}</span>
            <Link to={`/${tray.slug}/rules/new`} className={BUTTON_LINK}>
              {say("rules.newOwnRule")}
            </Link>
          </span>
        )
      }
    >
      <div className="px-5 py-4">
        <ProposedRules proposals={proposals} />
        <NamedHere value={names}>
          <ListsOfRules rules={rules} />
        </NamedHere>
      </div>
    </Page>
  );
}
