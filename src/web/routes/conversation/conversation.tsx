import { data, useOutletContext } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { namesIn, openConversation, otherMailOf, proposalsFor } from "../../../operations/index.server";
import { conversationTexts } from "../../../texts/en/conversation";
import { ConversationScreen } from "../../screens/conversation/conversation-screen";
import { useOpened } from "../../screens/frame/live-hub";
import type { ConversationDesk } from "../../screens/list/list-screen";
import { depsContext, grantContext, liveStateContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { conversationView } from "../../server/conversation/conversation-view.server";
import { proposalViews } from "../../server/conversation/proposal-view.server";
import { pageTitle, titled } from "../../ui/texts/page-title";
import type { Route } from "./+types/conversation";

export function meta({ loaderData, matches }: Route.MetaArgs) {
  const subject = loaderData?.row.subject ?? "";
  return subject === "" ? pageTitle(matches, conversationTexts, "conversation.conversation") : titled(subject);
}

export async function loader({ params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const id = readId<ConversationId>(params.conversation);
  const open = id.ok ? await openConversation(deps, grant, id.value) : null;
  if (open === null) throw data(speak("server.noSuchConversation"), { status: 404 });
  const { standing, whoAddress } = open.row;
  const otherMail = standing === "junk" ? await otherMailOf(deps, grant, whoAddress) : null;
  const [names, proposed] = await Promise.all([namesIn(deps, grant), proposalsFor(deps, grant, open.row)]);
  return {
    ...conversationView(open, { ...names, slug: grant.tray.slug }, readingOf(member, deps.now(), grant.covering)),
    otherMail,
    readIn: context.get(liveStateContext),
    proposals: proposalViews(proposed, names, open.row.who),
  };
}

export default function Conversation({ loaderData }: Route.ComponentProps) {
  const desk = useOutletContext<ConversationDesk>();
  useOpened(loaderData.row.id, loaderData.readIn);
  return (
    <ConversationScreen
      key={loaderData.row.id}
      view={loaderData}
      desk={desk}
      otherMail={loaderData.otherMail}
      proposals={loaderData.proposals}
    />
  );
}

export { shouldRevalidate } from "../shell/tray";
