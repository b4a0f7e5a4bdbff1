import { data } from "react-router";
import { readMailboxes } from "../../../core/kernel/email-address";
import { getTextSuggestions } from "../../../operations/index.server";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { readingOf } from "../../server/base/row-view.server";
import { type SaysView, saysView } from "../../server/writing/says-view.server";
import type { Route } from "./+types/text-suggestions";

// As much as anybody reads of a letter.
const MAX_CHARACTERS = 20_000;

/** What a text that is being written asks and promises; it is posted because it is long, and changes nothing. */
export async function action({ request, context }: Route.ActionArgs) {
  const form = await readForm(request, mostBytesTo("routes/writing/text-suggestions"));
  const [text, to] = ["text", "to"].map((name) => String(form.get(name) ?? "").slice(0, MAX_CHARACTERS));
  const deps = context.get(depsContext);
  const [first] = readMailboxes(to ?? "").mailboxes;
  const said = await getTextSuggestions(deps, context.get(grantContext), text ?? "", first?.address ?? null);
  return data<SaysView>(saysView(said, readingOf(context.get(memberContext), deps.now())));
}

/** Nothing on the page is other than before. */
export function shouldRevalidate() {
  return false;
}
