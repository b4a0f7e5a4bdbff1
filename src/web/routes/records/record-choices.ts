import { arrangedRecords, getTypes, recordsToFileOn } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import type { Route } from "./+types/record-choices";

const MAX_QUERY_CHARACTERS = 200;
const MOST_OF_MINE = 30;

export async function loader({ request, context }: Route.LoaderArgs) {
  const text = (new URL(request.url).searchParams.get("text") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const [records, types, mine] = await Promise.all([
    recordsToFileOn(deps, grant, text),
    getTypes(deps),
    arrangedRecords(deps, grant, text),
  ]);
  return {
    text,
    /** Those of her own arrangement, under her own names. */
    mine: mine.slice(0, MOST_OF_MINE).map(({ id, code, title, name, closed }) => ({ id, code, title, name, closed })),
    records: records.map(({ id, code, title, kind, closed }) => ({ id, code, title, kind, closed })),
    types: types.map(({ id, name }) => ({ id, name })),
  };
}
