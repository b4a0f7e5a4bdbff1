import { type ConversationId, type DraftId, readId } from "../../../core/kernel/ids";
import { readInstant } from "../../../core/kernel/instant";
import { dayAndTimeInFull } from "../../../core/time/day-words";
import { type Answer, type Deps, planLetter, type TrayGrant } from "../../../operations/index.server";
import type { LetterPlanned } from "../../screens/later-letters/use-planned";
import type { LetterRefused } from "../../screens/writing/write-outcome";
import type { Reading } from "../base/row-view.server";
import { speak } from "../base/say.server";
import { letterRefused } from "./letter-refused.server";
import { readDraft } from "./own-draft-form.server";

/** Plans a letter whose form says when it is to go; null where it says nothing of that. */
export async function planAsAsked(
  deps: Deps,
  grant: TrayGrant,
  form: FormData,
  { conversationId, answer }: { readonly conversationId: ConversationId | null; readonly answer: Answer },
  { now, zone }: Reading,
): Promise<LetterPlanned | LetterRefused | null> {
  const asked = form.get("later");
  if (typeof asked !== "string" || asked === "") return null;
  const [at, content] = [readInstant(asked), readDraft(String(form.get("content") ?? ""))];
  const id = readId<DraftId>(String(form.get("ownDraft") ?? ""));
  if (at === null || !content.ok || !id.ok)
    return { ok: false, problems: {}, problem: speak("server.thatIsNothingThatCan") };
  const terms = { at, ifSilent: form.get("ifSilent") === "on" };
  const planned = await planLetter(deps, grant, {
    id: id.value,
    conversationId,
    answer,
    terms,
    content: content.value,
  });
  if (!planned.ok) return letterRefused(planned.error);
  return { ok: true, planned: { id: id.value, words: speak(dayAndTimeInFull(at, now, zone)) } };
}
