import { readMailboxes } from "../../../core/kernel/email-address";
import { findRecipients } from "../../../operations/index.server";
import { depsContext, grantContext } from "../../server/base/context.server";
import { type RecipientChoice, recipientChoices } from "../../server/writing/recipient-views.server";
import type { Route } from "./+types/recipients";

const MOST_TYPED = 200;
const MOST_TAKEN = 10_000;

/** Completes what was typed (`typed`) into a list of recipients in which some stand already (`taken`). */
export async function loader({ request, context }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams;
  const { mailboxes } = readMailboxes((asked.get("taken") ?? "").slice(0, MOST_TAKEN));
  const taken = mailboxes.map(({ address }) => address);
  const typed = (asked.get("typed") ?? "").slice(0, MOST_TYPED);
  const found = await findRecipients(context.get(depsContext), context.get(grantContext), typed, taken);
  return Response.json(recipientChoices(found) satisfies RecipientChoice[]);
}
