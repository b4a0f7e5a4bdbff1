import { type NotificationId, trustedId } from "../../core/kernel/ids";
import { type CameBetween, cameBetween, verdictOnLater } from "../../core/later-letters/later-letter";
import type { Transaction } from "../../storage/base/index";
import { addNotifications, unplanDraft } from "../../storage/conversation/index";
import { changeLaterLetter, endLaterLetter, type LaterLetter, lockLettersIn } from "../../storage/mail/index";
import type { Within } from "../base/deps";
import type { ConversationInHand } from "../changes/change-conversations";

/** Holds the letters that were to go later into a conversation in which something came between, and asks who wrote them. */
export async function askBeforeLetters(
  trx: Transaction,
  deps: Within,
  { conversation, known }: ConversationInHand,
): Promise<void> {
  for (const letter of await lockLettersIn(trx, conversation.id)) {
    const came = cameBetween(known, letter.seenVersion, letter.memberId);
    if (came !== null) await putBy(trx, deps, letter, came);
  }
}

/** Holds a letter that is in hand for what came between, or stops it where that is what it waited to be spared. */
export async function putBy(trx: Transaction, deps: Within, letter: LaterLetter, came: CameBetween): Promise<void> {
  if (verdictOnLater(letter, came) === "stopped") {
    await endLaterLetter(trx, letter.id, "stopped", deps.now());
    await unplanDraft(trx, letter.id, "given-up", deps.now());
    return;
  }
  await changeLaterLetter(trx, letter.id, { state: "held", heldBy: came });
  await tellHeld(trx, deps, letter, came.kind === "colleague-wrote" ? "" : came.who);
}

/** Tells who wrote a letter that it does not go until she says so. */
export async function tellHeld(trx: Transaction, deps: Within, letter: LaterLetter, words: string): Promise<void> {
  await addNotifications(trx, [
    {
      id: trustedId<NotificationId>(deps.newId()),
      memberId: letter.memberId,
      trayId: letter.trayId,
      conversationId: letter.conversationId,
      at: deps.now(),
      event: "letter",
      by: null,
      count: 1,
      words,
      // Held again, it is told again.
      about: `letter:${letter.id}:${deps.now()}`,
    },
  ]);
}
