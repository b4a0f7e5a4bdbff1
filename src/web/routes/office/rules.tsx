import { useState } from "react";
import { data } from "react-router";
import type { Result } from "../../../core/kernel/result";
import {
  type Deps,
  dropRule,
  editRule,
  getRules,
  placeRules,
  type RuleRefusal,
  type RuleTrial,
  type TrayGrant,
  tryRule,
} from "../../../operations/index.server";
import { officeTexts } from "../../../texts/en/office";
import { useTray } from "../../screens/frame/tray-data";
import { RuleForm } from "../../screens/office/rule-form";
import { RuleList } from "../../screens/office/rule-list";
import type { RulesOutcome } from "../../screens/office/rules-outcome";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { saidByField, speak } from "../../server/base/say.server";
import { type RuleStep, readRuleStep } from "../../server/office/rule-form.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/rules";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.rules");
}

export async function loader({ context }: Route.LoaderArgs) {
  const { rules, codes } = await getRules(context.get(depsContext), context.get(grantContext));
  return {
    rules: rules.map(({ id, name, isOn, isLast, conditions, exceptions, actions }) => ({
      id,
      name,
      isOn,
      isLast,
      conditions,
      exceptions,
      actions,
      code: actions.recordId === null ? "" : (codes.get(actions.recordId) ?? ""),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = await readRuleStep(deps, grant, await readForm(request));
  if (!step.ok) return data<RulesOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carry(deps, grant, step.value);
  if (done.ok) return data<RulesOutcome>({ ok: true, said: "", trial: null, droppedId: null, ...done.value });
  const { error } = done;
  const problems = error.kind === "problems" ? saidByField(error.problems) : {};
  const problem = error.kind === "problems" ? null : refusalSaid(error);
  return data<RulesOutcome>({ ok: false, problems, problem }, { status: 409 });
}

type Said = { readonly said?: string; readonly trial?: RuleTrial<string>; readonly droppedId?: string };

function trialView({ of, matches }: RuleTrial): RuleTrial<string> {
  return { of, matches: matches.map((match) => ({ ...match, why: speak(match.why) })) };
}

async function carry(deps: Deps, grant: TrayGrant, step: RuleStep): Promise<Result<Said, RuleRefusal>> {
  const saying = <T,>(done: Result<T, RuleRefusal>, said: Said): Result<Said, RuleRefusal> =>
    done.ok ? { ok: true, value: said } : done;
  switch (step.do) {
    case "keep":
      return saying(await editRule(deps, grant, step.rule), { said: speak("office.ruleSaved") });
    case "try":
      return { ok: true, value: { trial: trialView(await tryRule(deps, grant, step.rule)) } };
    case "drop":
      return saying(await dropRule(deps, grant, step.id, true), { droppedId: step.id });
    case "bring-back":
      return saying(await dropRule(deps, grant, step.id, false), { said: speak("office.ruleBroughtBack") });
    case "place":
      return saying(await placeRules(deps, grant, step.ids), {});
    case "switch": {
      const rule = (await getRules(deps, grant)).rules.find(({ id }) => id === step.id);
      if (rule === undefined) return { ok: false, error: { kind: "no-such", what: "rule" } };
      const said = step.isOn ? speak("office.ruleSwitchedOn") : speak("office.ruleSwitchedOff");
      return saying(await editRule(deps, grant, { ...rule, isOn: step.isOn }), { said });
    }
  }
}

/** What the tray does by itself when a message comes; those who lead it say so, everybody reads it. */
export default function Rules({ loaderData: { rules } }: Route.ComponentProps) {
  const say = useSay(officeTexts);
  const { mayLead } = useTray();
  const [edited, setEdited] = useState<string | null>(null);
  const rule = rules.find(({ id }) => id === edited) ?? null;
  return (
    <Page
      title={say("office.rules")}
      beside={
        mayLead ? (
          <Button look={rules.length === 0 ? "filled" : "outline"} className="ml-auto" onClick={() => setEdited("")}>
            {say("office.newRule")}
          </Button>
        ) : (
          <span className="text-soft">{say("office.onlyLeadsOfTheTray")}</span>
        )
      }
    >
      <div className="grid gap-x-8 gap-y-6 px-5 py-4 min-[1500px]:grid-cols-[minmax(0,1fr)_580px]">
        <RuleList rules={rules} edited={edited} onEdit={setEdited} />
        {edited !== null && (
          <div className="max-w-2xl max-[1500px]:order-first">
            <RuleForm key={edited} rule={rule} onClose={() => setEdited(null)} />
          </div>
        )}
      </div>
    </Page>
  );
}
