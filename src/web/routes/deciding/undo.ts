import { data } from "react-router";
import { type BatchId, type CategoryStepId, readId } from "../../../core/kernel/ids";
import { redoNewest, undoCategories, undoNewest, undoSteps } from "../../../operations/index.server";
import { decidingTexts } from "../../../texts/en/deciding";
import type { UndoOutcome } from "../../screens/deciding/decision-outcome";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { undoneInWords } from "../../server/deciding/undone-in-words.server";
import { sayHere } from "../../ui/texts/say-here";
import type { Route } from "./+types/undo";

// More than anybody chooses in the journal.
const MAX_BATCHES = 1_000;

export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request);
  const read = form.getAll("batch").map((batch) => readId<BatchId>(String(batch)));
  const ids = read.flatMap((id) => (id.ok ? [id.value] : []));
  if (ids.length < read.length || ids.length > MAX_BATCHES)
    return data<UndoOutcome>({ ok: false, problem: speak("deciding.thoseAreNoStepsTo") }, { status: 400 });
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = readId<CategoryStepId>(String(form.get("step") ?? ""));
  if (step.ok) {
    const undone = await undoCategories(deps, grant, step.value);
    if (!undone.ok) return data<UndoOutcome>({ ok: false, problem: refusalSaid(undone.error) }, { status: 409 });
    return data<UndoOutcome>({ ok: true, message: speak("deciding.undone", { value: undone.value }) });
  }
  if (form.get("redo") !== null) {
    const redone = await redoNewest(deps, grant);
    if (!redone.ok) return data<UndoOutcome>({ ok: false, problem: refusalSaid(redone.error) }, { status: 409 });
    return data<UndoOutcome>(undoneInWords("redone", redone.value));
  }
  const undone = ids.length === 0 ? await undoNewest(deps, grant) : await undoSteps(deps, grant, { batchIds: ids });
  if (!undone.ok) return data<UndoOutcome>({ ok: false, problem: refusalSaid(undone.error) }, { status: 409 });
  const { value } = undone;
  if ("runId" in value) return data<UndoOutcome>({ ok: true, message: speak("deciding.undoingStepByStep") });
  return data<UndoOutcome>(undoneInWords("undone", value));
}

export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<UndoOutcome> {
  try {
    return await serverAction();
  } catch {
    return { ok: false, problem: sayHere(decidingTexts, "deciding.notUndoneTheServerDid") };
  }
}
