import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { waitingPart } from "../../server/waiting/waiting-view.server";
import type { Route } from "./+types/horizon-more";

/** The next of what is waited for. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams;
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  return Response.json(await waitingPart(deps, grant, member, query));
}
