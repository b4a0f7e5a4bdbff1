import { data } from "react-router";
import { type ConversationId, type MessageId, readId } from "../../../core/kernel/ids";
import { splitOff } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/split-off";

export async function action({ request, params, context }: Route.ActionArgs) {
  const message = readId<MessageId>(params.message);
  const conversation = readId<ConversationId>(String((await readForm(request)).get("conversation")));
  if (!message.ok || !conversation.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const grant = context.get(grantContext);
  const done = await splitOff(context.get(depsContext), grant, conversation.value, message.value);
  if (!done.ok) return data({ problem: refusalSaid(done.error) }, { status: 409 });
  // Whoever asked goes there by themselves: what leads on from a fetcher is lost where others change something meanwhile.
  return { to: `/${grant.tray.slug}/to-sort/${done.value.conversationId}` };
}
