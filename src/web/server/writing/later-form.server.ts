import Joi from "joi";
import { type ConversationId, type DraftId, trustedId } from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { MOST_IN_SERIES } from "../../../core/later-letters/series";
import { dayAndTimeInFull } from "../../../core/time/day-words";
import { type Answer, type Deps, planLetter, type TrayGrant } from "../../../operations/index.server";
import type { LetterPlanned } from "../../screens/later-letters/use-planned";
import type { LetterRefused } from "../../screens/writing/write-outcome";
import { ID } from "../base/fields.server";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";
import { MAX_HTML_CHARACTERS } from "./answer-form.server";
import { letterRefused } from "./letter-refused.server";
import { readDraft } from "./own-draft-form.server";

const ON = Joi.string().valid("on", "").default("");
const LATER = Joi.object<{ later: string; ifSilent: string; untilSettled: string; ownDraft: string; content: string }>({
  // Moments, apart by spaces.
  later: Joi.string()
    .max(30 * MOST_IN_SERIES)
    .required(),
  ifSilent: ON,
  untilSettled: ON,
  ownDraft: ID.required(),
  content: Joi.string()
    .max(2 * MAX_HTML_CHARACTERS)
    .required(),
});

/** Plans a letter whose form says when it is to go; null where it says nothing of that. */
export async function planAsAsked(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  { conversationId, answer }: { readonly conversationId: ConversationId | null; readonly answer: Answer },
  { now, zone }: Reading,
): Promise<LetterPlanned | LetterRefused | null> {
  if (!form.has("later")) return null;
  const { value, error } = LATER.validate(Object.fromEntries(form), { stripUnknown: true });
  const moments = (value?.later ?? "").split(" ").flatMap((one: string) => readInstant(one) ?? []);
  const content = readDraft(value?.content ?? "");
  const [first] = moments;
  if (error !== undefined || first === undefined || !content.ok)
    return { ok: false, problems: {}, problem: speak("server.thatIsNothingThatCan") };
  const id = trustedId<DraftId>(value.ownDraft);
  const plan = { moments, ifSilent: value.ifSilent === "on", untilSettled: value.untilSettled === "on" };
  const planned = await planLetter(deps, grant, { id, conversationId, answer, plan, content: content.value });
  if (!planned.ok) return letterRefused(planned.error);
  return { ok: true, planned: { id, count: moments.length, words: speak(dayAndTimeInFull(first, now, zone)) } };
}
