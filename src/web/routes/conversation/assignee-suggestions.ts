import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { getAssigneeSuggestions, namesIn, openConversationRow } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { assigneeSuggestionsView } from "../../server/conversation/assignee-suggestions-view.server";
import type { Route } from "./+types/assignee-suggestions";

/** Who could take a conversation, with the reasons. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const id = readId<ConversationId>(params.conversation);
  const row = id.ok ? await openConversationRow(deps, grant, id.value) : null;
  if (row === null) throw data(speak("server.noSuchConversation"), { status: 404 });
  const [could, names] = await Promise.all([getAssigneeSuggestions(deps, grant, row.id), namesIn(deps, grant)]);
  return data(assigneeSuggestionsView(could, names.members, row, readingOf(member, deps.now())));
}
