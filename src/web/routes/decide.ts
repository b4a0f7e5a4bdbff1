import { data } from "react-router";
import { decide, refusalInWords } from "../../operations/index.server";
import type { DecisionOutcome } from "../screens/decision-outcome";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { readDecision } from "../server/decision-form.server";
import type { Route } from "./+types/decide";

export async function action({ request, context }: Route.ActionArgs) {
  const deps = context.get(depsContext);
  const posted = readDecision(await request.formData(), context.get(memberContext).timeZone, deps.newId);
  if (!posted.ok) return data<DecisionOutcome>({ ok: false, problem: posted.error, stale: false }, { status: 400 });
  const done = await decide(deps, context.get(grantContext), posted.value.target, posted.value.decision);
  if (!done.ok)
    return data<DecisionOutcome>({ ok: false, problem: refusalInWords(done.error), stale: true }, { status: 409 });
  return data<DecisionOutcome>({ ok: true, batchId: done.value.batchId, count: done.value.count });
}

// A server that cannot be reached is an outcome to show, not a page to lose.
export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<DecisionOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: false, problem: "Not done: the server did not answer. Try again.", stale: false };
  }
}
