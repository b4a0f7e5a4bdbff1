import { exportCategories } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download } from "../../server/base/download.server";
import type { Route } from "./+types/categories-csv";

/** The categories of a tray as a table to keep, or to take into another. */
export async function loader({ context }: Route.LoaderArgs) {
  const grant = context.get(grantContext);
  const table = await exportCategories(context.get(depsContext), grant);
  return download(Buffer.from(table), `${grant.tray.slug}-categories.csv`, "text/csv; charset=utf-8");
}
