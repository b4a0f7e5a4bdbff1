import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { trustRemoteOf } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/remote-images";

export async function action({ params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const done = await trustRemoteOf(context.get(depsContext), context.get(grantContext), id.value);
  return done.ok ? { problem: null } : data({ problem: refusalSaid(done.error) }, { status: 409 });
}
