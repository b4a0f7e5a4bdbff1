import { data } from "react-router";
import { type MessageId, readId } from "../../core/kernel/ids";
import { readAttachment } from "../../operations/index.server";
import { depsContext, grantContext } from "../server/context.server";
import { download } from "../server/download.server";
import type { Route } from "./+types/attachment";

export async function loader({ params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const index = /^\d{1,4}$/.test(params.index) ? Number(params.index) : null;
  const found =
    id.ok && index !== null
      ? await readAttachment(context.get(depsContext), context.get(grantContext), id.value, index)
      : null;
  if (found === null) throw data("There is no such attachment.", { status: 404 });
  return download(found.content, found.attachment.fileName, found.attachment.contentType);
}
