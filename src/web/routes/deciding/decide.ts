import { data } from "react-router";
import type { TrayGrant } from "../../../operations/index.server";
import {
  DECIDED_AT_ONCE,
  type Deps,
  decideTogether,
  everythingInList,
  MAX_IN_RUN,
  type Member,
  markUnread,
  type Refusal,
  startBulkRun,
} from "../../../operations/index.server";
import type { DecisionOutcome } from "../../screens/deciding/decision-outcome";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { askedView, speak } from "../../server/base/say.server";
import { type PostedDecision, postedConversations, readDecision } from "../../server/deciding/decision-form.server";
import { listRequest } from "../../server/list/list-view.server";
import type { Route } from "./+types/decide";

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await readForm(request, mostBytesTo("routes/deciding/decide"));
  // What one has read is nobody else's matter, so it is no decision and in no journal.
  if (form.get("do") === "unread") {
    await markUnread(deps, grant, postedConversations(form));
    return data<DecisionOutcome>({ ok: true, batchId: "", count: 0, runId: null });
  }
  const posted = readDecision(form, deps.newId);
  if (!posted.ok) return data<DecisionOutcome>({ ok: false, problem: posted.error, stale: false }, { status: 400 });
  const { target, decisions, list } = posted.value;
  if (list !== null || target.ids.length > DECIDED_AT_ONCE) {
    return decideAll(deps, grant, context.get(memberContext), posted.value);
  }
  const done = await decideTogether(deps, grant, target, decisions);
  if (!done.ok) return refused(done.error);
  return data<DecisionOutcome>({ ok: true, batchId: done.value.batchId, count: done.value.count, runId: null });
}

function refused(refusal: Refusal) {
  const asked = refusal.kind === "fields-asked" ? { asked: askedView(refusal.asked) } : {};
  const outcome = {
    ok: false,
    problem: refusalSaid(refusal),
    stale: refusal.kind !== "fields-asked",
    ...asked,
  } as const;
  return data<DecisionOutcome>(outcome, { status: 409 });
}

async function decideAll(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  { list, target, decisions, said }: PostedDecision,
) {
  const [decision] = decisions;
  if (decision === undefined || decisions.length > 1) throw data(speak("server.decidedOneByOne"), { status: 400 });
  const request = list === null ? null : await listRequest(deps, grant, list.scope, new URLSearchParams(list.query));
  if (list !== null && request === null) throw data(speak("server.noSuchList"), { status: 404 });
  const ids =
    request === null
      ? target.ids
      : await everythingInList(deps, grant, member, request, list?.lane ?? null, MAX_IN_RUN + 1);
  const run = await startBulkRun(deps, grant, ids, decision, said);
  if (!run.ok) return refused(run.error);
  return data<DecisionOutcome>({ ok: true, batchId: "", count: ids.length, runId: run.value });
}

// A server that cannot be reached is an outcome to deal with, not a page to lose.
export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<DecisionOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: "unreachable" };
  }
}
