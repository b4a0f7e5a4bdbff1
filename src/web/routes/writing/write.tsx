import { data, redirect } from "react-router";
import { type DraftId, readId } from "../../../core/kernel/ids";
import { startConversation } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { unanswered } from "../../screens/frame/unanswered";
import type { WriteOutcome } from "../../screens/writing/write-outcome";
import { WriteScreen } from "../../screens/writing/write-screen";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/row-view.server";
import { readAnswer } from "../../server/writing/answer-form.server";
import { planAsAsked } from "../../server/writing/later-form.server";
import { letterRefused } from "../../server/writing/letter-refused.server";
import { openingView } from "../../server/writing/opening-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/write";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, writingTexts, "writing.aNewMessage");
}

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const asks = new URL(request.url).searchParams;
  const id = readId<DraftId>(asks.get("draft") ?? "");
  if (id.ok) return openingView(deps, grant, id.value, asks);
  // Its address names the draft from the beginning, so that a reload goes on with it.
  asks.set("draft", deps.newId());
  throw redirect(`/${params.tray}/write?${asks}`);
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const form = await readForm(request, mostBytesTo("routes/writing/write"));
  const answer = readAnswer(form, member.timeZone);
  if (!answer.ok) return data<WriteOutcome>({ ok: false, problems: answer.error, problem: null }, { status: 400 });
  const [grant, letter] = [context.get(grantContext), { conversationId: null, answer: answer.value }];
  const planned = await planAsAsked(deps, grant, form, letter, readingOf(member, deps.now()));
  if (planned !== null) return data<WriteOutcome>(planned, { status: planned.ok ? 200 : 409 });
  const sent = await startConversation(deps, grant, member, answer.value);
  if (!sent.ok) return data<WriteOutcome>(letterRefused(sent.error), { status: 409 });
  return data<WriteOutcome>({ ok: true, ...sent.value, holdMs: deps.sending.holdMs });
}

export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<WriteOutcome> {
  try {
    return await serverAction();
  } catch {
    return unanswered();
  }
}

/** A message that begins a conversation, about a record or about none. */
export default function Write({ loaderData }: Route.ComponentProps) {
  return <WriteScreen key={loaderData.id} letter={loaderData} />;
}
