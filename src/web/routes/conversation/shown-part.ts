import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { rememberShownPart } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import { readShownPart } from "../../server/conversation/shown-part-form.server";
import type { Route } from "./+types/shown-part";

/** Remembers how a member wants to see what the sender of a message writes. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  const part = readShownPart(await readForm(request));
  if (part === null) return data({ problem: speak("conversation.chooseTheTextOrThe") }, { status: 400 });
  const isDone =
    id.ok && (await rememberShownPart(context.get(depsContext), context.get(grantContext), id.value, part));
  return isDone ? { problem: null } : data({ problem: speak("conversation.thereIsNoSuchMessage") }, { status: 404 });
}
