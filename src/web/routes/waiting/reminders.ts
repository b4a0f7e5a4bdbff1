import { data } from "react-router";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { callOffReminders, planReminders, previewReminder } from "../../../operations/index.server";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readReminderStep, readReminderStyle } from "../../server/waiting/reminder-form.server";
import type { Route } from "./+types/reminders";

/** The text that a reminder for a conversation would have. */
export async function loader({ request, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams;
  const id = readId<ConversationId>(query.get("conversation") ?? "");
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const writer = context.get(memberContext);
  const text = id.ok ? await previewReminder(deps, grant, writer, id.value, readReminderStyle(query)) : null;
  if (text === null) throw data(speak("waiting.thisConversationIsNotIn"), { status: 404 });
  return { text };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = readReminderStep(await readForm(request));
  if (!step.ok) return data<FormOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const { ids } = step.value;
  const done =
    step.value.do === "plan"
      ? await planReminders(deps, grant, context.get(memberContext), ids, step.value.plan)
      : await callOffReminders(deps, grant, ids);
  if (!done.ok)
    return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
  return data<FormOutcome>({ ok: true, said: saidOf(step.value.do, done.value) });
}

function saidOf(did: "plan" | "call-off", count: number): string {
  if (did === "call-off") return speak("waiting.remindersCalledOff", { count });
  return speak("waiting.remindersPlannedForConversations", { count });
}
