import { data } from "react-router";
import { type RuleId, readId } from "../../../core/kernel/ids";
import { instant } from "../../../core/kernel/instant";
import { getRuleHistory, namesForRules, undoRuleVersion } from "../../../operations/index.server";
import { rulesTexts } from "../../../texts/en/rules";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { RuleHistoryScreen } from "../../screens/rule-history/rule-history";
import { NamedHere } from "../../screens/rules/named-here";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { undoneInWords } from "../../server/deciding/undone-in-words.server";
import { historyView } from "../../server/rules/history-view.server";
import { readUndoStep } from "../../server/rules/undo-form.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/rule-history";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, rulesTexts, "rules.rule");
}

export async function loader({ context, params, request }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<RuleId>(params.rule);
  const before = Number(new URL(request.url).searchParams.get("before") ?? Number.NaN);
  const from = Number.isFinite(before) && before > 0 ? instant(before) : null;
  const history = id.ok ? await getRuleHistory(deps, grant, id.value, from) : null;
  if (history === null) throw data(null, { status: 404 });
  const reading = readingOf(context.get(memberContext), deps.now());
  return {
    history: await historyView(deps, grant, history, reading),
    names: await namesForRules(deps, grant),
  };
}

export async function action({ request, context, params }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<RuleId>(params.rule);
  if (!id.ok) throw data(null, { status: 404 });
  const step = readUndoStep(await readForm(request), context.get(memberContext).timeZone);
  if (!step.ok) return data<FormOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const undone = await undoRuleVersion(deps, grant, { id: id.value, ...step.value });
  if (!undone.ok)
    return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(undone.error) }, { status: 409 });
  const { value } = undone;
  if ("runId" in value) return data<FormOutcome>({ ok: true, said: speak("deciding.undoingStepByStep") });
  const said = undoneInWords("undone", value);
  return data<FormOutcome>(
    said.ok ? { ok: true, said: said.message } : { ok: false, problems: {}, problem: said.problem },
  );
}

/** What a rule did, and how it came to be what it is; everybody who looks into the tray reads it. */
export default function RuleHistoryPage({ loaderData: { history, names } }: Route.ComponentProps) {
  return (
    <NamedHere value={names}>
      <RuleHistoryScreen key={history.rule.id} history={history} />
    </NamedHere>
  );
}
