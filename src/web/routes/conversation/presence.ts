import Joi from "joi";
import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import {
  bePresent,
  type Doing,
  leavePage,
  openConversationRow,
  type Present,
  whoIsPresent,
} from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/presence";

/** The colleagues who have a conversation open. */
export type PresenceAnswer = { readonly present: readonly Present[] };

function idOf(text: string): ConversationId {
  const id = readId<ConversationId>(text);
  if (!id.ok) throw data(speak("server.noSuchConversation"), { status: 404 });
  return id.value;
}

export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant, id] = [context.get(depsContext), context.get(grantContext), idOf(params.conversation)];
  if ((await openConversationRow(deps, grant, id)) === null)
    throw data(speak("server.noSuchConversation"), { status: 404 });
  const present = await whoIsPresent(deps, grant, id);
  return Response.json({ present } satisfies PresenceAnswer);
}

const FORM = Joi.object<{ page: string; doing: Doing | "gone" }>({
  page: ID.required(),
  doing: Joi.string().valid("looking", "writing", "gone").required(),
});

/** A page says what it shows, again and again, and that it shows it no more. Readers are present like everybody. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const conversationId = idOf(params.conversation);
  const { value, error } = FORM.validate(Object.fromEntries(await readForm(request)), { stripUnknown: true });
  if (error !== undefined) throw data(speak("server.saysNothingOfAPage"), { status: 400 });
  const { page: pageId, doing } = value;
  if (doing === "gone") await leavePage(deps, grant, pageId, conversationId);
  else if (!(await bePresent(deps, grant, { pageId, conversationId, doing })))
    throw data(speak("server.noSuchConversation"), { status: 404 });
  const present = doing === "gone" ? [] : await whoIsPresent(deps, grant, conversationId);
  return Response.json({ present } satisfies PresenceAnswer);
}
