import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { readAttachment } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download, preview, SHOWN_TYPES } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/attachment";

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const index = /^\d{1,4}$/.test(params.index) ? Number(params.index) : null;
  const found =
    id.ok && index !== null
      ? await readAttachment(context.get(depsContext), context.get(grantContext), id.value, index)
      : null;
  if (found === null) throw data(speak("server.noSuchAttachment"), { status: 404 });
  const { contentType } = found.attachment;
  const isShown = new URL(request.url).searchParams.has("shown") && SHOWN_TYPES.test(contentType);
  if (isShown) return preview(found.content, contentType);
  return download(found.content, found.attachment.fileName, found.attachment.contentType);
}
