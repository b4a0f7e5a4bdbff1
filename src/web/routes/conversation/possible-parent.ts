import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { possibleParentInWords } from "../../../core/threading/possible-parent";
import { getPossibleParent, openConversationRow } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/possible-parent";

/** What we asked elsewhere and a conversation may answer, with what speaks for it. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<ConversationId>(params.conversation);
  const row = id.ok ? await openConversationRow(deps, grant, id.value) : null;
  if (row === null) throw data(speak("server.noSuchConversation"), { status: 404 });
  const found = await getPossibleParent(deps, grant, row.id);
  return found.map(({ conversationId, subject, reason }) => ({
    conversationId,
    subject,
    why: speak(possibleParentInWords(reason)),
  }));
}
