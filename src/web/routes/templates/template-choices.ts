import { getTemplates } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { templateChoice } from "../../server/templates/template-view.server";
import type { Route } from "./+types/template-choices";

/** The templates that one can write with. */
export async function loader({ context }: Route.LoaderArgs) {
  const templates = await getTemplates(context.get(depsContext), context.get(grantContext));
  return { templates: templates.map(templateChoice) };
}
