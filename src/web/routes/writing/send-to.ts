import { data } from "react-router";
import { readMailboxes } from "../../../core/kernel/email-address";
import { type MessageId, readId } from "../../../core/kernel/ids";
import { sendToAnother } from "../../../operations/index.server";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import type { Route } from "./+types/send-to";

/** Sends the words of one of our messages to another address. */
export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const id = readId<MessageId>(params.message);
  if (!id.ok) throw data(speak("server.noSuchMessage"), { status: 404 });
  const typed = String((await readForm(request)).get("address") ?? "");
  const { mailboxes, malformed } = readMailboxes(typed);
  const [to, ...more] = mailboxes;
  const refused = (address: string, status: number) =>
    data<FormOutcome>({ ok: false, problems: { address }, problem: null }, { status });
  if (malformed.length > 0)
    return refused(speak("writing.notAnAddressWriteName", { malformed: malformed.join(", ") }), 400);
  if (to === undefined || more.length > 0) return refused(speak("writing.enterOneAddress"), 400);
  const sent = await sendToAnother(deps, grant, member, id.value, to);
  if (!sent.ok) return refused(refusalSaid(sent.error), 409);
  return data<FormOutcome>({ ok: true, said: speak("writing.onItsWay") });
}
