import { data } from "react-router";
import { type BatchId, readId } from "../../core/kernel/ids";
import { refusalInWords, type Undone, undoBatch, undoNewest } from "../../operations/index.server";
import type { UndoOutcome } from "../screens/decision-outcome";
import { depsContext, grantContext } from "../server/context.server";
import type { Route } from "./+types/undo";

export async function action({ request, context }: Route.ActionArgs) {
  const batch = (await request.formData()).get("batch");
  const id = batch === null ? null : readId<BatchId>(String(batch));
  if (id !== null && !id.ok)
    return data<UndoOutcome>({ ok: false, problem: "That is no step to undo." }, { status: 400 });
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const undone = id === null ? await undoNewest(deps, grant) : await undoBatch(deps, grant, id.value);
  if (!undone.ok) return data<UndoOutcome>({ ok: false, problem: refusalInWords(undone.error) }, { status: 409 });
  return data<UndoOutcome>(undoneInWords(undone.value));
}

function undoneInWords({ count, what, left }: Undone): UndoOutcome {
  const kept = left.length === 0 ? "" : ` Left as it is, since somebody decided anew: ${left.join(", ")}.`;
  return count === 0
    ? { ok: false, problem: `Nothing was undone.${kept}` }
    : { ok: true, message: `Undone: ${what}.${kept}` };
}

export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<UndoOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: false, problem: "Not undone: the server did not answer. Try again." };
  }
}
