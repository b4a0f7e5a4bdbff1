import type { ConversationId } from "../../core/kernel/ids";
import { type PossibleParent, possibleParent } from "../../core/threading/possible-parent";
import { moveEffect } from "../../core/turns/move-effect";
import type { TrayGrant } from "../../storage/access/index";
import { correspondenceOf } from "../../storage/conversation/index";
import { expectationsElsewhere } from "../../storage/lists/index";
import type { Deps } from "../base/deps";
import { aliasesOf } from "../deciding/awaiting";

/** A conversation that may be answered by another one, and what speaks for it. */
export type PossiblyAnswered = {
  readonly conversationId: ConversationId;
  readonly subject: string;
  readonly reason: PossibleParent;
};

/**
 * What we asked elsewhere and a conversation may answer, which somebody from outside began anew. None where we have written
 * in it ourselves, or nothing but its sender speaks for it.
 */
export async function getPossibleParent(deps: Deps, grant: TrayGrant, id: ConversationId): Promise<PossiblyAnswered[]> {
  const messages = await correspondenceOf(deps.db, grant, id);
  const first = messages.find((message) => moveEffect(message) === "they-wrote");
  if (first === undefined || messages.some(({ direction }) => direction === "out")) return [];
  const aliases = await aliasesOf(deps.db, grant.tray.id, [first.fromAddress]);
  const addresses = [first.fromAddress, ...aliases.map(({ address }) => address)];
  const asked = await expectationsElsewhere(deps.db, grant, id, addresses);
  return asked.flatMap(({ conversationId, ...question }) => {
    const reason = possibleParent(first, question);
    return reason === null ? [] : [{ conversationId, subject: question.subject, reason }];
  });
}
