import { data, type ShouldRevalidateFunctionArgs, useMatch } from "react-router";
import { isScope, scopeName } from "../../../core/lists/scope";
import { ListScreen } from "../../screens/list/list-screen";
import { depsContext, grantContext, liveStateContext, memberContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import { listRequest, listStart } from "../../server/list/list-view.server";
import { titledAs } from "../../ui/texts/page-title";
import type { Route } from "./+types/standing";

export function meta({ params, matches }: Route.MetaArgs) {
  return isScope(params.standing) ? titledAs(matches, scopeName(params.standing)) : [{ title: "Common Tray" }];
}

export async function loader({ params, request, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const list = await listRequest(deps, grant, params.standing, new URL(request.url).searchParams);
  if (list === null) throw data(speak("server.noSuchStanding"), { status: 404 });
  return { ...(await listStart(deps, grant, member, list)), readIn: context.get(liveStateContext) };
}

// A list that is open learns of changes row by row, so that it keeps its place; it is loaded anew as another list only.
export function shouldRevalidate({
  currentUrl,
  nextUrl,
  currentParams,
  nextParams,
  formAction,
}: ShouldRevalidateFunctionArgs) {
  if (formAction?.endsWith("/settings") === true || formAction?.endsWith("/rounds") === true) return true;
  const isOther = currentParams.tray !== nextParams.tray || currentParams.standing !== nextParams.standing;
  return isOther || currentUrl.search !== nextUrl.search;
}

export default function Standing({ loaderData, params }: Route.ComponentProps) {
  const open = useMatch("/:tray/:standing/:conversation")?.params.conversation ?? null;
  return <ListScreen key={`${params.tray}/${params.standing}`} list={loaderData} openId={open} />;
}
