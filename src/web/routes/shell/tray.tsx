import { lazy, Suspense, useState } from "react";
import { data, isRouteErrorResponse, Outlet, type ShouldRevalidateFunctionArgs } from "react-router";
import {
  bellOf,
  categoryRight,
  getTray,
  getZipExports,
  looseEndCountIfSoon,
  notificationSettingsOf,
  ownTimesOff,
  preferencesOf,
  runsUnderWay,
  shelfOf,
} from "../../../operations/index.server";
import { shellTexts } from "../../../texts/en/shell";
import { KeyDeskProvider } from "../../keys/key-desk";
import { ShelfContext, TrayContext, useSharedTray } from "../../screens/frame/tray-data";
import { type News, useLiveChanges } from "../../screens/frame/use-live-changes";
import { AbsenceLine } from "../../screens/shell/absence-line";
import { CommandLayer } from "../../screens/shell/command-layer";
import { ConnectionLost } from "../../screens/shell/connection-lost";
import { FlowBar } from "../../screens/shell/flow-bar";
import { Shelf } from "../../screens/shell/shelf";
import { TopBar } from "../../screens/shell/top-bar";
import {
  depsContext,
  grantContext,
  grantsContext,
  liveContext,
  liveStateContext,
  memberContext,
} from "../../server/base/context.server";
import { onceForEachCommand } from "../../server/base/once.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { trayData } from "../../server/shell/tray-view.server";
import { Button } from "../../ui/button";
import { Problem } from "../../ui/problem";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/tray";

const BackgroundJobs = lazy(() => import("../../screens/shell/background-jobs"));

export const middleware: Route.MiddlewareFunction[] = [
  ({ params, context }) => {
    const grant = context.get(grantsContext).find(({ tray }) => tray.slug === params.tray);
    if (grant === undefined) throw data(speak("server.noSuchTray"), { status: 404 });
    context.set(grantContext, grant);
    context.set(liveStateContext, context.get(liveContext).state(grant.tray.id));
  },
  onceForEachCommand,
];

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, member, grant] = [context.get(depsContext), context.get(memberContext), context.get(grantContext)];
  const settings = await notificationSettingsOf(deps, grant);
  const [view, preferences, runs, shelf, right, bell, timesOff, zipExports, looseEnds] = await Promise.all([
    getTray(deps, member, grant),
    preferencesOf(deps, grant),
    runsUnderWay(deps, grant),
    shelfOf(deps, grant),
    categoryRight(deps, grant, grant.tray.id),
    bellOf(deps, grant, member, settings),
    ownTimesOff(deps, grant),
    getZipExports(deps, grant),
    looseEndCountIfSoon(deps, grant),
  ]);
  const grants = context.get(grantsContext);
  const around = {
    grants,
    preferences,
    runs,
    zipExports,
    shelf,
    mayAddCategories: right === null,
    bell,
    timesOff,
    isDemo: deps.demo,
  };
  return {
    ...trayData(view, member, grant, around, readingOf(member, deps.now())),
    looseEnds,
    liveState: context.get(liveStateContext),
  };
}

export default function Tray({ loaderData }: Route.ComponentProps) {
  const { liveState, looseEnds, ...loaded } = loaderData;
  const [news, setNews] = useState<{ readonly about: typeof loaderData; readonly news: News } | null>(null);
  const { slug } = loaderData.tray;
  // What was loaded since is newer.
  const known = news?.about === loaderData ? news.news : null;
  const given = { ...loaded, ...known?.now };
  const { tray, shelf } = useSharedTray(given);
  const hasOwn = given.runs.length + given.zipExports.length + shelf.length > 0;
  const isLost = useLiveChanges(slug, liveState, hasOwn, (fresh) => setNews({ about: loaderData, news: fresh }));
  return (
    <TrayContext value={tray}>
      <ShelfContext value={shelf}>
        <KeyDeskProvider chosen={loaderData.preferences.keys}>
          <div className="flex h-dvh min-w-0 flex-col">
            <TopBar tray={given.tray} trays={given.trays} member={given.member} mayDecide={tray.mayDecide} />
            {isLost && <ConnectionLost />}
            <AbsenceLine />
            <FlowBar slug={slug} segments={given.flow} held={given.held} looseEnds={known?.looseEnds ?? looseEnds} />
            <Outlet />
            <Shelf />
            {given.runs.length + given.zipExports.length > 0 && (
              <Suspense>
                <BackgroundJobs runs={given.runs} zipExports={given.zipExports} slug={slug} />
              </Suspense>
            )}
            <CommandLayer />
          </div>
        </KeyDeskProvider>
      </ShelfContext>
    </TrayContext>
  );
}

// What never reached the server changed nothing, and loading anew would fail as well and take this screen away.
export function shouldRevalidate({ nextUrl, actionResult, defaultShouldRevalidate }: ShouldRevalidateFunctionArgs) {
  // Both are fetched ahead as if one were to go there.
  if (/\/(?:decide|undo)$/.test(nextUrl.pathname)) return false;
  return actionResult?.ok === "unreachable" ? false : defaultShouldRevalidate;
}

// As which React Router tells a page that something broke on the server.
const BROKE_THERE = "Unexpected Server Error";

// What the server refused keeps its own words, and what broke there is said so; the rest is a server or a line that does not answer.
export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  const say = useSay(shellTexts);
  if (isRouteErrorResponse(error) || (error instanceof Error && error.message === BROKE_THERE)) throw error;
  return (
    <Problem title={say("shell.theServerDoesNotAnswer")} text={say("shell.whatYouDecidedAndIt")}>
      <Button look="filled" onClick={() => window.location.reload()}>
        {say("shell.tryAgain")}
      </Button>
    </Problem>
  );
}
