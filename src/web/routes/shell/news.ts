import pLimit from "p-limit";
import { data } from "react-router";
import {
  bellOf,
  type Deps,
  getTray,
  getZipExports,
  looseEndCount,
  notificationSettingsOf,
  runsUnderWay,
  shelfOf,
  type TrayGrant,
} from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { changedIds, changesView, listRequest } from "../../server/list/list-view.server";
import { nowView, ownView } from "../../server/shell/tray-view.server";
import type { Route } from "./+types/news";

// A change has everybody's screen ask at the same moment. Whoever opens a page or decides goes before them.
const AT_ONCE = 2;
const inTurn = pLimit(AT_ONCE);

/**
 * What became of some conversations, as one small answer for whatever is open: the counts around every screen, and where
 * `scope` names one, what changed in that list; with `own`, what of the asker's own is on the screen. What is counted is
 * counted once for all who ask.
 */
export function loader(args: Route.LoaderArgs) {
  return inTurn(() => (args.request.signal.aborted ? new Response(null, { status: 499 }) : newsFor(args)));
}

async function newsFor({ request, context }: Route.LoaderArgs): Promise<Response> {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const query = new URL(request.url).searchParams;
  const scope = query.get("scope");
  const list = scope === null ? null : await listRequest(deps, grant, scope, query);
  if (scope !== null && list === null) throw data(speak("server.noSuchList"), { status: 404 });
  const [{ flow, colleagues }, bell, looseEnds, changes, own] = await Promise.all([
    getTray(deps, member, grant),
    notificationSettingsOf(deps, grant).then((settings) => bellOf(deps, grant, member, settings)),
    looseEndCount(deps, grant),
    list === null ? null : changesView(deps, grant, member, list, changedIds(query)),
    query.has("own") ? ownNow(deps, grant) : null,
  ]);
  const reading = readingOf(member, deps.now(), grant.covering);
  return Response.json({ now: { ...nowView({ flow, bell }, colleagues, reading), ...own }, looseEnds, list: changes });
}

async function ownNow(deps: Deps, grant: TrayGrant) {
  const [runs, zipExports, shelf] = await Promise.all([
    runsUnderWay(deps, grant),
    getZipExports(deps, grant),
    shelfOf(deps, grant),
  ]);
  return ownView({ runs, zipExports, shelf });
}
