import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { attachmentsZip } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/attachments-zip";

export async function loader({ params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const zip = id.ok ? await attachmentsZip(context.get(depsContext), context.get(grantContext), id.value) : null;
  if (zip === null) throw data(speak("server.noSuchMessage"), { status: 404 });
  return download(zip, "attachments.zip", "application/zip");
}
