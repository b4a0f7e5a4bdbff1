import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { getCallScript } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/call-script";

/** The note that one has before one while telephoning. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const id = readId<ConversationId>(params.conversation);
  const lines = id.ok ? await getCallScript(context.get(depsContext), context.get(grantContext), id.value) : null;
  if (lines === null) throw data(speak("server.noSuchConversation"), { status: 404 });
  return { text: lines.map((line) => speak(line)).join("\n") };
}
