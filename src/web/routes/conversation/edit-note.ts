import Joi from "joi";
import { data } from "react-router";
import { type ConversationId, type EntryId, readId } from "../../../core/kernel/ids";
import { editNote } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { problemOf, speak } from "../../server/base/say.server";
import { NOTE_TEXT } from "../../server/deciding/decision-form.server";
import type { Route } from "./+types/edit-note";

export type EditNoteOutcome = { readonly ok: true } | { readonly ok: false; readonly problem: string };

const FORM = Joi.object<{ text: string }>({ text: NOTE_TEXT });

export async function action({ request, params, context }: Route.ActionArgs) {
  const conversation = readId<ConversationId>(params.conversation);
  const entry = readId<EntryId>(params.entry);
  if (!conversation.ok || !entry.ok) throw data(speak("server.noSuchNote"), { status: 404 });
  const { value, error } = FORM.validate(Object.fromEntries(await readForm(request)), { stripUnknown: true });
  if (error !== undefined) return data<EditNoteOutcome>({ ok: false, problem: problemOf(error) }, { status: 400 });
  const target = { ids: [conversation.value], seenVersion: null };
  const grant = context.get(grantContext);
  const done = await editNote(context.get(depsContext), grant, target, entry.value, value.text);
  if (done.ok) return data<EditNoteOutcome>({ ok: true });
  return data<EditNoteOutcome>({ ok: false, problem: refusalSaid(done.error) }, { status: 409 });
}
