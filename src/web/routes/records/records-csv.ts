import { exportRecords } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download } from "../../server/base/download.server";
import type { Route } from "./+types/records-csv";

/** The records that she may know of as a table to keep, or to take in elsewhere. */
export async function loader({ context }: Route.LoaderArgs) {
  const table = await exportRecords(context.get(depsContext), context.get(grantContext));
  return download(Buffer.from(table), "records.csv", "text/csv; charset=utf-8");
}
