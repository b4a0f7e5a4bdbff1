import { data } from "react-router";
import { readId, type TemplateId } from "../../../core/kernel/ids";
import { fillTemplate } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { letterBegun, type UsedTemplateView, usedTemplateView } from "../../server/templates/template-view.server";
import type { Route } from "./+types/used-template";

/** A template filled for a letter; 404 where there is none. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const id = readId<TemplateId>(params.template);
  if (!id.ok) throw data(null, { status: 404 });
  const used = await fillTemplate(deps, grant, member, id.value, letterBegun(new URL(request.url).searchParams));
  if (!used.ok) throw data(refusalSaid(used.error), { status: 404 });
  return Response.json(usedTemplateView(used.value, member.timeZone) satisfies UsedTemplateView);
}
