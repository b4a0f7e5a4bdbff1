import { type ConversationId, readId } from "../../../core/kernel/ids";
import { templatesToChoose } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { templateChoice } from "../../server/templates/template-view.server";
import type { Route } from "./+types/template-choices";

/** The templates that one can write with in a conversation, or in none. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const asked = readId<ConversationId>(new URL(request.url).searchParams.get("conversation") ?? "");
  const id = asked.ok ? asked.value : null;
  const templates = await templatesToChoose(context.get(depsContext), context.get(grantContext), id);
  return { templates: templates.map(templateChoice) };
}
