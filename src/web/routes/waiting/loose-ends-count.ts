import { looseEndCount } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import type { Route } from "./+types/loose-ends-count";

/** How many loose ends there are, asked for by itself so that no page waits for it. */
export async function loader({ context }: Route.LoaderArgs) {
  return Response.json({ count: await looseEndCount(context.get(depsContext), context.get(grantContext)) });
}
