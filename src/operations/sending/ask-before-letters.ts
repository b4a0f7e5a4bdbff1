import { type NotificationId, trustedId } from "../../core/kernel/ids";
import { type CameBetween, cameBetween, verdictOnLater } from "../../core/later-letters/later-letter";
import { type ConversationFacts, deriveFlow } from "../../core/standing/derive-standing";
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
  // Whether it is settled is asked when they go: it may be so for a while.
  for (const letter of await lockLettersIn(trx, conversation.id)) {
    const came = cameBetween(known, letter.seenVersion, letter.memberId);
    if (came !== null) await putBy(trx, deps, letter, came);
  }
}

/** Holds a letter that is in hand for what came between, or stops it where that is what it waited to be spared. */
async function putBy(trx: Transaction, deps: Within, letter: LaterLetter, came: CameBetween): Promise<void> {
  if (verdictOnLater(letter, came, false) === "stopped") return stopLetter(trx, deps, letter);
  await changeLaterLetter(trx, letter.id, { state: "held", heldBy: came });
  await tellHeld(trx, deps, letter, came.kind === "colleague-wrote" ? "" : came.who);
}

/** Ends a letter that is not needed any more. Its text can be brought back for a while, that of a series once. */
async function stopLetter(trx: Transaction, deps: Within, { id, series }: LaterLetter): Promise<void> {
  await endLaterLetter(trx, id, "stopped", deps.now());
  if (series.part === 1) await unplanDraft(trx, id, "given-up", deps.now());
}

/** Puts a letter by whose moment has come, where something speaks against it: false where nothing does. */
export async function isPutBy(
  trx: Transaction,
  deps: Within,
  letter: LaterLetter,
  facts: ConversationFacts,
): Promise<boolean> {
  const came = cameBetween(facts, letter.seenVersion, letter.memberId);
  const isSettled = deriveFlow(facts).standing.kind === "settled";
  if (verdictOnLater(letter, came, isSettled) === "stopped") await stopLetter(trx, deps, letter);
  else if (came === null) return false;
  else await putBy(trx, deps, letter, came);
  return true;
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
      // Held again, it is told again; of a series once.
      about: `letter:${letter.series.id}:${deps.now()}`,
    },
  ]);
}
