import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { markUnreadFromMessage } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/unread-from";

/** Marks a conversation as unread from one of its messages on, and goes back to the list, as looking at it would read it. */
export async function action({ params, request, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  const grant = context.get(grantContext);
  const isDone = id.ok && (await markUnreadFromMessage(context.get(depsContext), grant, id.value));
  if (!isDone) return data({ problem: speak("conversation.thereIsNoSuchMessage") }, { status: 404 });
  const list = String((await readForm(request)).get("list"));
  return { to: /^\/[\w-]+\/[\w-]+$/.test(list) ? list : `/${grant.tray.slug}/to-sort` };
}
