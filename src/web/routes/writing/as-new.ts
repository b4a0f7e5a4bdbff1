import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { editAsNew } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/as-new";

/** Begins a new message with the words of one of ours: where it is written, or why it is not. */
export async function action({ params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const draft = await editAsNew(context.get(depsContext), context.get(grantContext), id.value);
  return draft.ok
    ? { to: `/${params.tray}/write?draft=${draft.value}` }
    : data({ problem: refusalSaid(draft.error) }, { status: 409 });
}
