import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { answerConversation } from "../../../operations/index.server";
import { unanswered } from "../../screens/frame/unanswered";
import type { LetterPlanned } from "../../screens/later-letters/use-planned";
import type { LetterRefused } from "../../screens/writing/write-outcome";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { type AnswerProblems, readAnswer } from "../../server/writing/answer-form.server";
import { planAsAsked } from "../../server/writing/later-form.server";
import { letterRefused } from "../../server/writing/letter-refused.server";
import type { Route } from "./+types/answer";

/** What the server said to an answer: sent off, or what is wrong by field and as a whole. */
export type AnswerOutcome =
  | { readonly ok: true; readonly messageId: string; readonly holdMs: number }
  | LetterPlanned
  | (LetterRefused<AnswerProblems> & {
      /** True where it can be sent all the same. */
      readonly mayInsist?: boolean;
    });

const CROSSING: ReadonlySet<string> = new Set(["also-writing", "answered-meanwhile", "new-message"]);

export async function action({ request, params, context }: Route.ActionArgs) {
  const member = context.get(memberContext);
  const id = readId<ConversationId>(params.conversation);
  if (!id.ok) throw data(speak("writing.thereIsNoSuchConversation"), { status: 404 });
  const form = await readForm(request, mostBytesTo("routes/writing/answer"));
  const answer = readAnswer(form, member.timeZone);
  if (!answer.ok) return data<AnswerOutcome>({ ok: false, problems: answer.error, problem: null }, { status: 400 });
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const letter = { conversationId: id.value, answer: answer.value };
  const planned = await planAsAsked(deps, grant, form, letter, readingOf(member, deps.now()));
  if (planned !== null) return data<AnswerOutcome>(planned, { status: planned.ok ? 200 : 409 });
  const sent = await answerConversation(deps, grant, member, id.value, answer.value);
  if (sent.ok) return data<AnswerOutcome>({ ok: true, messageId: sent.value, holdMs: deps.sending.holdMs });
  const refused = letterRefused(sent.error);
  const problem = sent.error.kind === "new-message" ? newMessage(sent.error.who) : refused.problem;
  return data<AnswerOutcome>({ ...refused, problem, mayInsist: CROSSING.has(sent.error.kind) }, { status: 409 });
}

function newMessage(who: string): string {
  return speak("writing.wroteWhileYouWereWriting", { who });
}

export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<AnswerOutcome> {
  try {
    return await serverAction();
  } catch {
    return unanswered();
  }
}
