import Joi from "joi";
import { data } from "react-router";
import { MENU_DIMENSIONS, type MenuDimension } from "../../../core/lists/filter";
import { countsForFilter, moreOfList } from "../../../operations/index.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readingOf } from "../../server/base/row-view.server";
import { problemOf, speak, worded } from "../../server/base/say.server";
import { changedIds, changesView, listedRowView, listRequest, listStart } from "../../server/list/list-view.server";
import { runOrderIn, runPartView } from "../../server/list/run-view.server";
import type { Route } from "./+types/list-data";

const MAX_PAGE = 1_000;

const MORE = Joi.object<{ lane: string; key?: string; id?: string; limit: number }>({
  lane: Joi.string().allow("").required(),
  key: Joi.string().allow(""),
  id: ID,
  limit: Joi.number().integer().min(1).max(MAX_PAGE).required(),
}).and("key", "id");

/** Parts of a list, as its screen needs them: the next rows of a lane, what became of some, counts to filter by. */
export async function loader({ params, request, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const query = new URL(request.url).searchParams;
  const list = await listRequest(deps, grant, params.scope, query);
  if (list === null) throw data(speak("server.noSuchList"), { status: 404 });
  switch (params.part) {
    case "start":
      return Response.json(await listStart(deps, grant, member, list));
    case "more": {
      const asked = MORE.validate(Object.fromEntries(query), { stripUnknown: true });
      if (asked.error !== undefined) throw data(problemOf(asked.error), { status: 400 });
      const { lane, key, id, limit } = asked.value;
      // Text that looks like a number is one where the order is by numbers, and the store reads it as it needs it.
      const after = key === undefined || id === undefined ? null : { key, id };
      const reading = readingOf(member, deps.now(), grant.covering);
      const rows = await moreOfList(deps, grant, member, list, { lane, after, limit });
      return Response.json(rows.map((row) => listedRowView(row, reading)));
    }
    case "run":
      return Response.json(await runPartView(deps, grant, member, { ...list, order: runOrderIn(query) }));
    case "changes":
      return Response.json(await changesView(deps, grant, member, list, changedIds(query)));
    case "counts": {
      const by = query.get("by");
      if (!MENU_DIMENSIONS.some((one) => one === by)) throw data(speak("server.noSuchFilter"), { status: 400 });
      return Response.json(
        (await countsForFilter(deps, grant, member, list, by as MenuDimension)).map((group) => ({
          ...group,
          name: worded(group.name),
        })),
      );
    }
    default:
      throw data(speak("server.noSuchPartOfAList"), { status: 404 });
  }
}
