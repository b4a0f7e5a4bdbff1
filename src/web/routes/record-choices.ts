import { recordsToFileOn } from "../../operations/index.server";
import { depsContext, grantContext } from "../server/context.server";
import type { Route } from "./+types/record-choices";

const MAX_QUERY_CHARACTERS = 200;

export async function loader({ request, context }: Route.LoaderArgs) {
  const text = (new URL(request.url).searchParams.get("text") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const records = await recordsToFileOn(context.get(depsContext), context.get(grantContext), text);
  return records.map(({ id, code, title, kind, closed }) => ({ id, code, title, kind, closed }));
}
