import { data, redirect, type ShouldRevalidateFunctionArgs, useSearchParams } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { MAX_EXAMPLES } from "../../../core/rule-learning/learn-actions";
import { ON_ARRIVAL } from "../../../core/rules/rule";
import { getRules, learnRule, namesForRules, ruleRefusal, rulesAsWritten } from "../../../operations/index.server";
import { rulesTexts } from "../../../texts/en/rules";
import type { WrittenRule } from "../../screens/rule-trial/written-rule";
import { NamedHere, type NamesHere } from "../../screens/rules/named-here";
import { RuleEditor } from "../../screens/rules/rule-editor";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { writtenMoment } from "../../server/base/moment-field.server";
import { type LearnedView, learnedView } from "../../server/rules/learned-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/rule";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, rulesTexts, "rules.rule");
}

const NEW = "new";
const NEW_RULE: WrittenRule = {
  id: null,
  name: "",
  isOn: true,
  isLast: false,
  isOwn: false,
  isEverywhere: false,
  condition: { kind: "all", of: [] },
  exception: null,
  actions: [],
  times: { moment: "arrival", from: "", until: "" },
};

type LoaderData = {
  readonly rule: WrittenRule;
  readonly learned: LearnedView | null;
  readonly names: NamesHere;
};

export async function loader({ context, params, request }: Route.LoaderArgs): Promise<LoaderData> {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const names = await namesForRules(deps, grant);
  if (params.rule === NEW) {
    const { searchParams } = new URL(request.url);
    const ids = idsIn(searchParams.get("from") ?? "");
    const rule = { ...NEW_RULE, isOwn: grant.role !== "lead" };
    if (ids.length === 0) return { rule, learned: null, names };
    if (rule.isOwn) throw redirect(`/${params.tray}/rules`);
    const learned = await learnRule(deps, grant, ids, idsIn(searchParams.get("not") ?? ""));
    if (!learned.ok) throw data(null, { status: 404 });
    const view = learnedView(learned.value, deps.now(), context.get(memberContext).timeZone);
    const [first] = view.proposals;
    const condition = first?.condition ?? NEW_RULE.condition;
    const proposed = { ...rule, condition, actions: view.actions.map(({ action }) => action) };
    return { rule: proposed, learned: view, names };
  }
  const known = (await getRules(deps, grant)).filter(({ id }) => id === params.rule);
  const [found] = await rulesAsWritten(deps, grant, known);
  if (found === undefined) throw data(null, { status: 404 });
  // Those of all trays are changed where they are kept.
  if (found.keptIn !== null || ruleRefusal(grant, found) !== null) throw redirect(`/${params.tray}/rules`);
  const whose = { isOwn: found.memberId !== undefined, isEverywhere: found.isEverywhere ?? false };
  const { id, name, isOn, isLast, condition, exception, actions, times = ON_ARRIVAL } = found;
  const { timeZone } = context.get(memberContext);
  const written = { ...times, from: writtenMoment(times.from, timeZone), until: writtenMoment(times.until, timeZone) };
  const rule = { id, name, isOn, isLast, ...whose, condition, exception, actions, times: written };
  return { rule, learned: null, names };
}

/** What is tried while it is written changes nothing about what was learned. */
export function shouldRevalidate({ formData, defaultShouldRevalidate }: ShouldRevalidateFunctionArgs): boolean {
  return formData?.get("do") === "try" ? false : defaultShouldRevalidate;
}

function idsIn(text: string): ConversationId[] {
  const ids = text.split(",").flatMap((one) => {
    const read = readId<ConversationId>(one);
    return read.ok ? [read.value] : [];
  });
  return ids.slice(0, MAX_EXAMPLES);
}

/** A rule by itself, to be written or changed. */
export default function RulePage({ loaderData: { rule, learned, names } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  return (
    <NamedHere value={names}>
      <RuleEditor
        key={rule.id ?? (learned === null ? NEW : "learned")}
        rule={rule}
        learned={learned}
        proposalId={params.get("proposal") ?? ""}
      />
    </NamedHere>
  );
}
