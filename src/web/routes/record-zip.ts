import { data } from "react-router";
import { exportRecord } from "../../operations/index.server";
import { depsContext, grantContext } from "../server/context.server";
import { downloadStream } from "../server/download.server";
import type { Route } from "./+types/record-zip";

/** A record with everything on it as a zip, written as it is read. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url);
  const wanted = {
    format: searchParams.get("format") === "mbox" ? ("mbox" as const) : ("eml" as const),
    withNotes: searchParams.get("notes") === "on",
  };
  const made = await exportRecord(context.get(depsContext), context.get(grantContext), params.code, wanted);
  if (made === null) throw data("There is no record of this code.", { status: 404 });
  return downloadStream(made.content, made.name, "application/zip");
}
