import type { Effect } from "../../core/journal/entry";
import { type BatchId, type ConversationId, type MessageId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import { listMessage } from "../../storage/conversation/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { writingTexts } from "../../texts/en/writing";
import { type Said, saidOf } from "../../texts/said";
import type { Deps } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import { type Refusal, refusalInWords } from "../refusals/refusal";
import type { Writer } from "../sending/letters";
import { answerConversation } from "./answer-conversation";

const said = saidOf(writingTexts);

/** How a list was left. */
export type Left = { readonly by: "one-click" | "mail"; readonly conversationId: ConversationId };

/**
 * Leaves the mailing list that a message came through: by one POST where its sender offers that (RFC 8058), else by the
 * message that it asks for (RFC 2369). A failure is a sentence for whoever tried; nothing is in the journal then.
 */
export async function unsubscribeFromList(
  deps: Deps,
  grant: TrayGrant,
  writer: Writer,
  messageId: MessageId,
): Promise<Result<Left, Said>> {
  const refused = (refusal: Refusal) => err(refusalInWords(refusal));
  if (grant.role === "reader") return refused({ kind: "readers-only-read" });
  const message = await listMessage(deps.db, grant, messageId);
  if (message === null) return refused({ kind: "no-such", what: "message" });
  const { ways, conversationId, sender, isImitation } = message;
  if (isImitation) return err(said("writing.itsSenderIsPerhapsNot"));
  if (ways.atOnce !== null) {
    const outcome = await deps.lists.leave(ways.atOnce);
    if (outcome.kind !== "left") {
      const { reason } = outcome;
      return err(
        outcome.kind === "not-now" ? said("writing.notLeftNow", { reason }) : said("writing.notLeft", { reason }),
      );
    }
    await noteLeft(deps, grant, conversationId, { kind: "list-left", list: message.list ?? sender, by: "one-click" });
    return ok({ by: "one-click", conversationId });
  }
  if (ways.mail === null) return err(said("writing.itNamesAPageOnly"));
  const { to, subject, body } = ways.mail;
  const sent = await answerConversation(deps, grant, writer, conversationId, {
    to: [{ name: "", address: to }],
    cc: [],
    subject,
    html: `<p>${body.replace(/[&<>]/g, (character) => `&#${character.charCodeAt(0)};`)}</p>`,
    after: { kind: "settle" },
  });
  if (!sent.ok) return refused(sent.error);
  await noteLeft(deps, grant, conversationId, { kind: "list-left", list: message.list ?? sender, by: "mail" });
  return ok({ by: "mail", conversationId });
}

async function noteLeft(deps: Deps, grant: TrayGrant, id: ConversationId, effect: Effect): Promise<void> {
  await inTransaction(deps.db, async (trx) => {
    const held = await lockConversations(trx, grant.tray.id, [id]);
    const facts = await factsOf(trx, [id]);
    const changes = held.map((conversation) => ({
      conversation,
      known: facts.get(id) ?? NOTHING_HAPPENED,
      effects: [effect],
    }));
    await carryOut(trx, deps, grant.memberId, trustedId<BatchId>(deps.newId()), changes);
  });
  deps.publishChange({ trayId: grant.tray.id, conversationId: id });
}
