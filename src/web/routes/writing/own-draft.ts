import { data } from "react-router";
import { type DraftId, readId } from "../../../core/kernel/ids";
import { keepDraft, throwDraftAway } from "../../../operations/index.server";
import type { Saved } from "../../screens/drafts/draft-keeper";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readOwnDraftStep } from "../../server/writing/own-draft-form.server";
import { keptDraft } from "../../server/writing/own-draft-view.server";
import type { Route } from "./+types/own-draft";

/** What the server said to a step of a draft of one's own; with what became of it where it was to be kept. */
export type OwnDraftAnswer =
  | { readonly ok: true; readonly saved?: Saved }
  | { readonly ok: false; readonly problem: string };

export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<DraftId>(params.draft);
  if (!id.ok) throw data(speak("server.noSuchDraft"), { status: 404 });
  const step = readOwnDraftStep(await readForm(request, mostBytesTo("routes/writing/own-draft")));
  if (!step.ok) return Response.json({ ok: false, problem: step.error } satisfies OwnDraftAnswer, { status: 400 });
  const given = step.value;
  const done =
    given.do === "keep"
      ? await keepDraft(deps, grant, { id: id.value, ...given })
      : await throwDraftAway(deps, grant, id.value, given.do === "throw-away");
  if (!done.ok)
    return Response.json({ ok: false, problem: refusalSaid(done.error) } satisfies OwnDraftAnswer, { status: 409 });
  const kept = done.value;
  const saved = kept === null || kept.kind === "kept" ? kept : { ...kept, there: kept.there && keptDraft(kept.there) };
  return Response.json({ ok: true, ...(saved && { saved }) } satisfies OwnDraftAnswer);
}
