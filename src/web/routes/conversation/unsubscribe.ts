import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { unsubscribeFromList } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/unsubscribe";

export async function action({ params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const left = await unsubscribeFromList(
    context.get(depsContext),
    context.get(grantContext),
    context.get(memberContext),
    id.value,
  );
  return left.ok
    ? { by: left.value.by, problem: null }
    : data({ by: null, problem: speak(left.error) }, { status: 409 });
}
