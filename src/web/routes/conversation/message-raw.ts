import { data } from "react-router";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { readRaw } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { download } from "../../server/base/download.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/message-raw";

export async function loader({ params, context }: Route.LoaderArgs) {
  const id = readId<MessageId>(params.message);
  const raw = id.ok ? await readRaw(context.get(depsContext), context.get(grantContext), id.value) : null;
  if (raw === null) throw data(speak("server.noSuchMessage"), { status: 404 });
  return download(raw, `message-${params.message}.eml`, "message/rfc822");
}
