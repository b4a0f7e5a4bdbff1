import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { joinConversations, search } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/join";

const MAX_CHOICES = 12;

/** What may be joined to a conversation: what a search finds. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams.get("q") ?? "";
  const found = await search(context.get(depsContext), context.get(grantContext), query);
  const others = found.filter(({ row }) => row.id !== params.conversation).slice(0, MAX_CHOICES);
  return { choices: others.map(({ row }) => ({ id: row.id, subject: row.subject, who: row.who })) };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const target = readId<ConversationId>(params.conversation);
  const source = readId<ConversationId>(String((await readForm(request)).get("other")));
  if (!target.ok || !source.ok) return data({ problem: speak("deciding.chooseAConversationOfThe") }, { status: 400 });
  const done = await joinConversations(context.get(depsContext), context.get(grantContext), target.value, source.value);
  return done.ok ? { problem: null } : data({ problem: refusalSaid(done.error) }, { status: 409 });
}
