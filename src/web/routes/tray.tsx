import { data, Outlet } from "react-router";
import { lookIntoTray } from "../../operations/index.server";
import { DecisionsProvider } from "../screens/decisions";
import { FlowBar } from "../screens/flow-bar";
import { TopBar } from "../screens/top-bar";
import { useLiveChanges } from "../screens/use-live-changes";
import { depsContext, grantContext, grantsContext, memberContext } from "../server/context.server";
import { dateChoices } from "../server/date-choices.server";
import { flowView } from "../server/tray-view.server";
import { readingOf } from "../server/words.server";
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
  const reading = readingOf(member, deps.now());
  const { flow, members, categories } = await lookIntoTray(deps, member, grant);
  return {
    member: { id: member.id, name: member.name, initials: member.initials },
    tray: { slug: grant.tray.slug, name: grant.tray.name, address: grant.tray.addresses[0] ?? "" },
    trays: context.get(grantsContext).map(({ tray }) => ({ slug: tray.slug, address: tray.addresses[0] ?? tray.name })),
    mayDecide: grant.role !== "reader",
    flow: flowView(flow, reading),
    members: members.map(({ id, name, initials }) => ({ id, name, initials })),
    categories,
    dateChoices: dateChoices(reading),
    now: reading.now,
  };
}

export default function Tray({ loaderData }: Route.ComponentProps) {
  useLiveChanges(`/${loaderData.tray.slug}/live`);
  return (
    <DecisionsProvider>
      <div className="flex h-dvh min-w-0 flex-col">
        <TopBar {...loaderData} />
        <FlowBar slug={loaderData.tray.slug} segments={loaderData.flow} />
        <Outlet />
      </div>
    </DecisionsProvider>
  );
}
