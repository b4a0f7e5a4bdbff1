import { data } from "react-router";
import { readFilter } from "../../../core/lists/filter";
import { isScope } from "../../../core/lists/scope";
import { listTexts } from "../../../texts/en/list";
import { SortRun } from "../../screens/sort-run/sort-run";
import { depsContext, grantContext, liveStateContext, memberContext } from "../../server/base/context.server";
import { speak } from "../../server/base/say.server";
import { runOrderIn, runPartView } from "../../server/list/run-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/sort-run";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, listTexts, "list.titleSortRun");
}

export async function loader({ params, request, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const { scope } = params;
  if (!isScope(scope)) throw data(speak("server.noSuchList"), { status: 404 });
  const query = new URL(request.url).searchParams;
  const order = runOrderIn(query);
  const filter = readFilter(query);
  const part = await runPartView(deps, grant, member, { scope, filter, order });
  return { scope, filter, order, ...part, readIn: context.get(liveStateContext) };
}

// A run goes on in its own order; what others do meanwhile it learns of conversation by conversation.
export function shouldRevalidate({ currentUrl, nextUrl }: { currentUrl: URL; nextUrl: URL }) {
  return currentUrl.href !== nextUrl.href;
}

export default function SortRunRoute({ loaderData, params }: Route.ComponentProps) {
  return <SortRun key={`${params.tray}/${loaderData.scope}/${loaderData.order}`} start={loaderData} />;
}
