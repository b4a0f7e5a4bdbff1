import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { giveUpDraft, handDraft, returnDraft } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { type DraftProblems, readDraftStep } from "../../server/writing/draft-form.server";
import { sayHere } from "../../ui/texts/say-here";
import type { Route } from "./+types/drafts";

/** What the server said to a step of a draft. */
export type DraftOutcome =
  | { readonly ok: true; readonly did: "hand" | "return" | "give-up" }
  | {
      readonly ok: false;
      readonly problems: DraftProblems;
      readonly problem: string | null;
      /** True where nobody knows whether it was done. */
      readonly unreachable?: boolean;
    };

export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const id = readId<ConversationId>(params.conversation);
  if (!id.ok) throw data(speak("writing.thisConversationIsNotIn"), { status: 404 });
  const step = readDraftStep(await readForm(request, mostBytesTo("routes/writing/drafts")));
  if (!step.ok) return data<DraftOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const given = step.value;
  const done =
    given.do === "hand"
      ? await handDraft(deps, grant, id.value, given)
      : given.do === "return"
        ? await returnDraft(deps, grant, id.value, given.seen, given.note)
        : await giveUpDraft(deps, grant, id.value, given.seen);
  if (done.ok) return data<DraftOutcome>({ ok: true, did: given.do });
  return data<DraftOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
}

// A server that cannot be reached is an outcome to deal with, not a text to lose.
export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<DraftOutcome> {
  try {
    return await serverAction();
  } catch {
    const problem = sayHere(writingTexts, "writing.noAnswerFromTheServer");
    return { ok: false, problems: {}, unreachable: true, problem };
  }
}
