import { waitingTexts } from "../../../texts/en/waiting";
import { HorizonScreen } from "../../screens/waiting/horizon-screen";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { waitingPart } from "../../server/waiting/waiting-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/horizon";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, waitingTexts, "waiting.titleWaitingForReplyAsAHorizon");
}

export function loader({ request, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams;
  return waitingPart(context.get(depsContext), context.get(grantContext), context.get(memberContext), query);
}

export default function Horizon({ loaderData }: Route.ComponentProps) {
  return <HorizonScreen first={loaderData} />;
}
