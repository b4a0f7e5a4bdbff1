import { data } from "react-router";
import { readMailboxes } from "../../../core/kernel/email-address";
import { type ConversationId, readId } from "../../../core/kernel/ids";
import { checkRecipients, getTextSuggestions, type LetterInHand } from "../../../operations/index.server";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/row-view.server";
import { type SaysView, saysView } from "../../server/writing/says-view.server";
import type { Route } from "./+types/text-suggestions";

// As much as anybody reads of a letter.
const MAX_CHARACTERS = 20_000;
const MAX_RECIPIENTS = 100;

/** What a text that is being written asks and promises, and what is worth knowing of those it goes to; it is posted because it is long, and changes nothing. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request, mostBytesTo("routes/writing/text-suggestions"));
  const field = (name: string) => String(form.get(name) ?? "").slice(0, MAX_CHARACTERS);
  const [to, cc, bcc] = ["to", "cc", "bcc"].map((name) =>
    readMailboxes(field(name)).mailboxes.slice(0, MAX_RECIPIENTS),
  );
  const conversation = readId<ConversationId>(field("conversation"));
  const letter: LetterInHand = {
    conversationId: conversation.ok ? conversation.value : null,
    ...{ to: to ?? [], cc: cc ?? [], bcc: bcc ?? [] },
    ...{ subject: field("subject"), text: field("text"), recordCode: field("record") },
  };
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const [said, warnings] = await Promise.all([
    getTextSuggestions(deps, grant, letter.text, letter.to[0]?.address ?? null),
    checkRecipients(deps, grant, letter),
  ]);
  return data<SaysView>(saysView(said, warnings, readingOf(context.get(memberContext), deps.now())));
}

/** Nothing on the page is other than before. */
export function shouldRevalidate() {
  return false;
}
