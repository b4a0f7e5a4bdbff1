import { Readable } from "node:stream";
import { data } from "react-router";
import { readId, type ZipExportId } from "../../../core/kernel/ids";
import { openZipExport } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { downloadStream } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/zip-export";

/** The zip that somebody had packed, as it lies in the store. */
export async function loader({ params, context }: Route.LoaderArgs) {
  const id = readId<ZipExportId>(params.zipExport);
  const opened = id.ok ? await openZipExport(context.get(depsContext), context.get(grantContext), id.value) : null;
  if (opened === null) throw data(speak("server.noSuchZip"), { status: 404 });
  const { name, bytes, content } = opened;
  return downloadStream(Readable.from(content, { objectMode: false }), name, "application/zip", bytes);
}
