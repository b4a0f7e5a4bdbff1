import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { exportConversation, exportSearch } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { downloadStream } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/export";

/** A conversation, or what a search finds, as a file to keep. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url);
  const format = searchParams.get("format") === "mbox" ? "mbox" : "eml";
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<ConversationId>(params.what);
  const file = id.ok
    ? await exportConversation(deps, grant, id.value, format)
    : await exportSearch(deps, grant, searchParams.get("q") ?? "", format);
  if (file === null) throw data(speak("server.nothingToExport"), { status: 404 });
  const name = `${grant.tray.slug}-${id.ok ? "conversation" : "search"}.${file.extension}`;
  return downloadStream(file.content, name, file.extension === "mbox" ? "application/mbox" : "application/zip");
}
