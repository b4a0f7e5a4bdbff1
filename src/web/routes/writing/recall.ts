import { data } from "react-router";
import { printMailboxes } from "../../../core/kernel/email-address";
import { type MessageId, readId } from "../../../core/kernel/ids";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";
import { recallMessage } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/recall";

/** What came back: the message as it can be written again, or why it cannot be had back. */
export type RecallOutcome =
  | {
      readonly ok: true;
      readonly conversationId: string;
      readonly draft: {
        readonly to: string;
        readonly cc: string;
        readonly subject: string;
        readonly html: string;
        readonly enclosures: readonly DraftAttachment[];
      };
    }
  | { readonly ok: false; readonly problem: string };

export async function action({ params, context }: Route.ActionArgs) {
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const taken = await recallMessage(context.get(depsContext), context.get(grantContext), id.value);
  if (!taken.ok) return data<RecallOutcome>({ ok: false, problem: refusalSaid(taken.error) }, { status: 409 });
  const { conversationId, to, cc, subject, html, enclosures } = taken.value;
  const draft = { to: printMailboxes(to), cc: printMailboxes(cc), subject, html, enclosures };
  return data<RecallOutcome>({ ok: true, conversationId, draft });
}
