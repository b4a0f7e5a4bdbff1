import { data, isRouteErrorResponse, Outlet } from "react-router";
import { lookIntoTray } from "../../operations/index.server";
import { FlowBar } from "../screens/flow-bar";
import { TopBar } from "../screens/top-bar";
import { useLiveChanges } from "../screens/use-live-changes";
import { depsContext, grantContext, grantsContext, memberContext } from "../server/context.server";
import { trayData } from "../server/tray-view.server";
import { readingOf } from "../server/words.server";
import { Button } from "../ui/button";
import { Problem } from "../ui/problem";
import type { Route } from "./+types/tray";

export const middleware: Route.MiddlewareFunction[] = [
  ({ params, context }) => {
    const grant = context.get(grantsContext).find(({ tray }) => tray.slug === params.tray);
    if (grant === undefined) throw data("There is no such tray, or it is not yours to look into.", { status: 404 });
    context.set(grantContext, grant);
  },
];

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, member, grant] = [context.get(depsContext), context.get(memberContext), context.get(grantContext)];
  const view = await lookIntoTray(deps, member, grant);
  return trayData(view, member, grant, context.get(grantsContext), readingOf(member, deps.now()));
}

export default function Tray({ loaderData }: Route.ComponentProps) {
  useLiveChanges(`/${loaderData.tray.slug}/live`);
  return (
    <div className="flex h-dvh min-w-0 flex-col">
      <TopBar {...loaderData} />
      <FlowBar slug={loaderData.tray.slug} segments={loaderData.flow} />
      <Outlet />
    </div>
  );
}

// What the server refused keeps its own words; the rest is a server or a line that does not answer.
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (isRouteErrorResponse(error)) throw error;
  return (
    <Problem
      title="The server does not answer"
      text="What you decided and it did not take is told below; nothing else is lost."
    >
      <Button look="filled" onClick={() => window.location.reload()}>
        Try again
      </Button>
    </Problem>
  );
}
