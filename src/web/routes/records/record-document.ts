import { data } from "react-router";
import { readId } from "../../../core/kernel/ids";
import { readDocument } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download, preview, SHOWN_TYPES } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/record-document";

/** A file that somebody put on a record. */
export async function loader({ request, params, context }: Route.LoaderArgs) {
  const id = readId(params.document);
  const found = id.ok
    ? await readDocument(context.get(depsContext), context.get(grantContext), params.code, id.value)
    : null;
  if (found === null) throw data(speak("server.noSuchDocument"), { status: 404 });
  const { fileName, contentType } = found.document;
  const isShown = new URL(request.url).searchParams.has("shown") && SHOWN_TYPES.test(contentType);
  return isShown ? preview(found.content, contentType) : download(found.content, fileName, contentType);
}
