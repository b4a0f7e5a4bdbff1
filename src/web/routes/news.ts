import { data } from "react-router";
import {
  bellOf,
  lookAtParcels,
  lookIntoTray,
  looseEndCount,
  runsUnderWay,
  shelfOf,
  tellingOf,
} from "../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { changedIds, changesView, listRequest } from "../server/list-view.server";
import { nowView } from "../server/tray-view.server";
import { readingOf } from "../server/words.server";
import type { Route } from "./+types/news";

/**
 * What became of some conversations, as one small answer for whatever is open: the counts around every screen, and where
 * `scope` names one, what changed in that list. What is counted is counted once for all who ask.
 */
export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const query = new URL(request.url).searchParams;
  const scope = query.get("scope");
  const list = scope === null ? null : await listRequest(deps, grant, scope, query);
  if (scope !== null && list === null) throw data("There is no such list.", { status: 404 });
  const [{ flow, colleagues }, runs, shelf, bell, parcels, looseEnds, changes] = await Promise.all([
    lookIntoTray(deps, member, grant),
    runsUnderWay(deps, grant),
    shelfOf(deps, grant),
    tellingOf(deps, grant).then((telling) => bellOf(deps, grant, member, telling)),
    lookAtParcels(deps, grant),
    looseEndCount(deps, grant),
    list === null ? null : changesView(deps, grant, member, list, changedIds(query)),
  ]);
  const reading = readingOf(member, deps.now(), grant.covering);
  const now = nowView({ flow, runs, parcels, shelf, bell }, colleagues, reading);
  return Response.json({ now, looseEnds, list: changes });
}
