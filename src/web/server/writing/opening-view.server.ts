import { data, redirect } from "react-router";
import type { DraftId } from "../../../core/kernel/ids";
import { readMailto } from "../../../core/message/mailto";
import { htmlOfText } from "../../../core/writing/html-of-text";
import { type Deps, getOwnDraft, openingMessage, type TrayGrant } from "../../../operations/index.server";
import { speak } from "../base/say.server";
import { keptDraft } from "./own-draft-view.server";

/** A first message, its draft as it is kept, or as its address asks to begin it: about a record, to somebody, or as a `mailto:` link has it; 404 without the record. */
export async function openingView(deps: Deps, grant: TrayGrant, id: DraftId, asks: URLSearchParams) {
  const draft = await getOwnDraft(deps, grant, id);
  // An answer is written where what it answers is in sight.
  if (draft?.conversationId != null) throw redirect(`/${grant.tray.slug}/open/${draft.conversationId}`);
  const code = asks.get("record") ?? "";
  const opening = code === "" ? null : await openingMessage(deps, grant, code);
  if (code !== "" && opening === null) throw data(speak("server.noOpenRecord"), { status: 404 });
  const asked = readMailto(asks.get("mailto") ?? "") ?? { to: asks.get("to") ?? "", cc: "", subject: "", body: "" };
  const { to, cc, subject, body } = asked;
  return {
    id,
    there: draft && keptDraft(draft),
    record: opening === null ? null : { id: opening.id, code: opening.code, title: opening.title },
    people: opening?.people ?? [],
    start: {
      to,
      cc,
      subject: opening === null ? subject : `${subject} [${opening.code}]`,
      html: body.trim() === "" ? "" : htmlOfText(body),
    },
  };
}

export type OpeningView = Awaited<ReturnType<typeof openingView>>;
