import { data, redirect } from "react-router";
import { getRules, rulesAsWritten } from "../../../operations/index.server";
import { rulesTexts } from "../../../texts/en/rules";
import { RuleEditor } from "../../screens/rules/rule-editor";
import type { WrittenRule } from "../../screens/rules/written-rule";
import { depsContext, grantContext } from "../../server/base/context.server";
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
  condition: { kind: "all", of: [] },
  exception: null,
  actions: [],
};

export async function loader({ context, params }: Route.LoaderArgs): Promise<{ rule: WrittenRule }> {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  if (grant.role !== "lead") throw redirect(`/${params.tray}/rules`);
  if (params.rule === NEW) return { rule: NEW_RULE };
  const known = (await getRules(deps, grant)).filter(({ id }) => id === params.rule);
  const [found] = await rulesAsWritten(deps, grant, known);
  if (found === undefined) throw data(null, { status: 404 });
  const { id, name, isOn, isLast, condition, exception, actions } = found;
  return { rule: { id, name, isOn, isLast, condition, exception, actions } };
}

/** A rule by itself, to be written or changed. */
export default function RulePage({ loaderData: { rule } }: Route.ComponentProps) {
  return <RuleEditor key={rule.id ?? NEW} rule={rule} />;
}
