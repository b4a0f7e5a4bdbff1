import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { looseEndsPart } from "../../server/waiting/loose-ends-view.server";
import type { Route } from "./+types/loose-ends-more";

/** The next loose ends. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams;
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  return Response.json(await looseEndsPart(deps, grant, member, query));
}
