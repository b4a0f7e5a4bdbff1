import type { AskedFields } from "../../core/records/filing-field";
import type { RuleProblems } from "../../core/rules/check-rule";
import type { Rule } from "../../core/rules/rule";
import { isAsked } from "../../core/templates/blank";
import { unfilledBlanks } from "../../core/templates/unfilled";
import type { TrayGrant } from "../../storage/access/index";
import { templatesOfTray } from "../../storage/conversation/index";
import { recordsByCodes } from "../../storage/records/index";
import { rulesTexts } from "../../texts/en/rules";
import { type Said, saidOf } from "../../texts/said";
import type { Asking } from "../base/deps";
import { askedFields } from "../changes/asked-fields";

const said = saidOf(rulesTexts);

/** What the record of a code asks for of what a rule files on it; null where the member may know of none. */
export async function detailsAskedBy(deps: Asking, grant: TrayGrant, code: string): Promise<AskedFields<Said> | null> {
  const [record] = await recordsByCodes(deps.db, grant, [code]);
  return record === undefined ? null : ((await askedFields(deps, grant, record.id, null))?.asked ?? null);
}

/**
 * What a rule files with the details as they are kept, or which of its actions lack some that their records need, or answer
 * with what somebody would have to fill.
 */
export async function withDetails<R extends Pick<Rule, "actions">>(
  deps: Asking,
  grant: TrayGrant,
  rule: R,
): Promise<R | { readonly problems: RuleProblems }> {
  const problems = await askedByTemplates(deps, grant, rule);
  const actions = [...rule.actions];
  for (const [at, action] of rule.actions.entries()) {
    if (action.kind !== "file") continue;
    const found = await askedFields(deps, grant, action.recordId, action.fields ?? {});
    if (found === null || (action.fields === undefined && !found.isNeeded)) continue;
    if (found.values === null) problems.push({ at, problem: said("rules.asksForDetails", { code: found.asked.code }) });
    else actions[at] = { ...action, fields: found.values };
  }
  return problems.length > 0 ? { problems: { actions: problems } } : { ...rule, actions };
}

type ActionProblem = { readonly at: number; readonly problem: Said };

// Nobody is there to fill in what a template asks for when a rule answers with it.
async function askedByTemplates(
  deps: Asking,
  { tray }: TrayGrant,
  { actions }: Pick<Rule, "actions">,
): Promise<ActionProblem[]> {
  if (!actions.some(({ kind }) => kind === "answer-with")) return [];
  const templates = await templatesOfTray(deps.db, tray.id);
  return actions.flatMap((action, at) => {
    if (action.kind !== "answer-with") return [];
    const template = templates.find(({ id }) => id === action.templateId);
    if (template === undefined) return [];
    const asked = unfilledBlanks(template.html).filter(isAsked);
    const blanks = { all: asked.map(({ label }) => label), by: "and" } as const;
    return asked.length === 0 ? [] : [{ at, problem: said("rules.templateAsks", { name: template.name, blanks }) }];
  });
}
