import { data } from "react-router";
import { type RecordId, readId } from "../../../core/kernel/ids";
import { openingMessage, startConversation } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { unanswered } from "../../screens/frame/unanswered";
import type { WriteOutcome } from "../../screens/writing/write-outcome";
import { WriteScreen } from "../../screens/writing/write-screen";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readAnswer } from "../../server/writing/answer-form.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/write";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, writingTexts, "writing.aNewMessage");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const code = new URL(request.url).searchParams.get("record") ?? "";
  const letter = await openingMessage(context.get(depsContext), context.get(grantContext), code);
  if (letter === null) throw data(speak("server.noOpenRecord"), { status: 404 });
  return letter;
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const form = await readForm(request, mostBytesTo("routes/writing/write"));
  const record = readId<RecordId>(String(form.get("record") ?? ""));
  if (!record.ok) throw data(speak("server.noSuchRecord"), { status: 404 });
  const answer = readAnswer(form, member.timeZone);
  if (!answer.ok) return data<WriteOutcome>({ ok: false, problems: answer.error, problem: null }, { status: 400 });
  const sent = await startConversation(deps, context.get(grantContext), member, record.value, answer.value);
  if (!sent.ok) {
    return data<WriteOutcome>({ ok: false, problems: {}, problem: refusalSaid(sent.error) }, { status: 409 });
  }
  return data<WriteOutcome>({ ok: true, ...sent.value, holdMs: deps.sending.holdMs });
}

export async function clientAction({ serverAction }: Route.ClientActionArgs): Promise<WriteOutcome> {
  try {
    return await serverAction();
  } catch {
    return unanswered();
  }
}

/** A message that begins a conversation about a record. */
export default function Write({ loaderData }: Route.ComponentProps) {
  return <WriteScreen key={loaderData.code} letter={loaderData} />;
}
