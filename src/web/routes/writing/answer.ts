import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import type { AskedFields } from "../../../core/records/filing-field";
import { answerConversation } from "../../../operations/index.server";
import { unanswered } from "../../screens/frame/unanswered";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { askedView, speak } from "../../server/base/say.server";
import { type AnswerProblems, readAnswer } from "../../server/writing/answer-form.server";
import type { Route } from "./+types/answer";

/** What the server said to an answer: sent off, or what is wrong by field and as a whole. */
export type AnswerOutcome =
  | { readonly ok: true; readonly messageId: string; readonly holdMs: number }
  | {
      readonly ok: false;
      readonly problems: AnswerProblems;
      readonly problem: string | null;
      /** True where nobody knows whether it was sent. */
      readonly unreachable?: boolean;
      /** True where it can be sent all the same. */
      readonly mayInsist?: boolean;
      /** What the record that it is filed on asks for first. */
      readonly asked?: AskedFields;
    };

const CROSSING: ReadonlySet<string> = new Set(["also-writing", "answered-meanwhile", "new-message"]);

export async function action({ request, params, context }: Route.ActionArgs) {
  const member = context.get(memberContext);
  const id = readId<ConversationId>(params.conversation);
  if (!id.ok) throw data(speak("writing.thereIsNoSuchConversation"), { status: 404 });
  const answer = readAnswer(await readForm(request, mostBytesTo("routes/writing/answer")), member.timeZone);
  if (!answer.ok) return data<AnswerOutcome>({ ok: false, problems: answer.error, problem: null }, { status: 400 });
  const deps = context.get(depsContext);
  const sent = await answerConversation(deps, context.get(grantContext), member, id.value, answer.value);
  if (sent.ok) return data<AnswerOutcome>({ ok: true, messageId: sent.value, holdMs: deps.sending.holdMs });
  if (sent.error.kind === "fields-asked")
    return data<AnswerOutcome>(
      { ok: false, problems: {}, problem: null, asked: askedView(sent.error.asked) },
      { status: 409 },
    );
  const mayInsist = CROSSING.has(sent.error.kind);
  const problem = sent.error.kind === "new-message" ? newMessage(sent.error.who) : refusalSaid(sent.error);
  return data<AnswerOutcome>({ ok: false, problems: {}, problem, mayInsist }, { status: 409 });
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
