import { data } from "react-router";
import { IMPORT_WAYS, receiveImport } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/import-upload";

const MAX_NAME_CHARACTERS = 300;

/** Takes the bytes of a file as they come; name and manner are in the address. */
export async function action({ request, context }: Route.ActionArgs) {
  const { searchParams } = new URL(request.url);
  if (request.body === null) return data({ problem: speak("office.chooseAFileFirst") }, { status: 400 });
  const way = searchParams.get("as") ?? "";
  const done = await receiveImport(context.get(depsContext), context.get(grantContext), {
    name: (searchParams.get("name") ?? "").slice(0, MAX_NAME_CHARACTERS),
    way: IMPORT_WAYS.find((one) => one === way) ?? "history",
    content: request.body as unknown as AsyncIterable<Uint8Array>,
  });
  return done.ok ? { problem: null } : data({ problem: refusalSaid(done.error) }, { status: 409 });
}
