import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { cameUp, namesIn, readyForRun } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { runView } from "../../server/list/run-view.server";
import type { Route } from "./+types/run-conversation";

function idOf(text: string): ConversationId {
  const id = readId<ConversationId>(text);
  if (!id.ok) throw data(speak("server.noSuchConversation"), { status: 404 });
  return id.value;
}

/** A conversation with its proposals, fetched before its turn comes. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const ready = await readyForRun(deps, grant, idOf(params.conversation));
  if (ready === null) throw data(speak("server.noSuchConversation"), { status: 404 });
  const reading = readingOf(context.get(memberContext), deps.now(), grant.covering);
  return Response.json(runView(ready, { ...(await namesIn(deps, grant)), slug: grant.tray.slug }, reading));
}

/** Its turn has come: it counts as read. */
export async function action({ params, context }: Route.ActionArgs) {
  await cameUp(context.get(depsContext), context.get(grantContext), idOf(params.conversation));
  return Response.json({ ok: true });
}
