import { data } from "react-router";
import { type RunId, readId } from "../../../core/kernel/ids";
import { stopBulkRun } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/stop-run";

/** Stops a decision about many conversations where it is. */
export async function action({ request, context }: Route.ActionArgs) {
  const id = readId<RunId>(String((await readForm(request)).get("run")));
  if (!id.ok) throw data(speak("server.noSuchRun"), { status: 404 });
  const stopped = await stopBulkRun(context.get(depsContext), context.get(grantContext), id.value);
  return stopped.ok ? { problem: null } : data({ problem: refusalSaid(stopped.error) }, { status: 409 });
}
