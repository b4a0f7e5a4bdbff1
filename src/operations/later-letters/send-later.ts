import type { ConversationId, DraftId, MessageId } from "../../core/kernel/ids";
import { ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { allMembers, grantOfMember } from "../../storage/access/index";
import { inTransaction, inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { factsOf, lockCategoriesForShare, lockConversations } from "../../storage/facts/index";
import {
  changeLaterLetter,
  dueLaterLetters,
  endLaterLetter,
  goOnIn,
  type LaterLetter,
  laterLetter,
  lockLaterLetter,
} from "../../storage/mail/index";
import type { Answer } from "../answering/answer";
import { answerWithin } from "../answering/answer-conversation";
import { startWithin } from "../answering/start-conversation";
import type { Deps, Within } from "../base/deps";
import { writtenDown } from "../base/written-down";
import { type Refusal, refusalInWords } from "../refusals/refusal";
import { isPutBy, tellHeld } from "../sending/ask-before-letters";

const MOST_AT_ONCE = 100;

/** Sends the letters whose moment has come; gives how many went. What is late, as nobody was there to send it, goes now. */
export async function sendLaterLetters(deps: Deps): Promise<number> {
  let count = 0;
  const problems: unknown[] = [];
  for (;;) {
    const due = await dueLaterLetters(deps.db, deps.now(), MOST_AT_ONCE);
    let went = 0;
    for (const id of due) {
      // One that cannot be sent must not keep the others from going.
      const isSent = await sendLetter(deps, id).catch((problem) => void problems.push(problem));
      if (isSent === true) went += 1;
    }
    count += went;
    if (due.length < MOST_AT_ONCE || went === 0) break;
  }
  if (problems.length > 0) throw problems[0];
  return count;
}

/** Sends one of them, where it is still to go and nothing came between. One that is refused is held, and its writer told why. */
export async function sendLetter(deps: Deps, id: DraftId): Promise<boolean> {
  const sent = await inTransactionUnlessRefused(deps.db, (trx) => sendWithin(trx, deps, id));
  if (!sent.ok) await inTransaction(deps.db, (trx) => holdRefused(trx, deps, id, sent.error));
  const conversationId = sent.ok ? sent.value : null;
  const letter = await laterLetter(deps.db, id);
  const changed = conversationId ?? letter?.conversationId ?? null;
  if (letter !== null && changed !== null) deps.publishChange({ trayId: letter.trayId, conversationId: changed });
  return conversationId !== null;
}

// The conversation that it went into; null where it did not go.
async function sendWithin(
  trx: Transaction,
  deps: Within,
  id: DraftId,
): Promise<Result<ConversationId | null, Refusal>> {
  // Whoever changes a conversation holds it before the letters that are to go into it, and categories before both.
  const first = await laterLetter(trx, id);
  if (first === null) return ok(null);
  const answer = first.answer as Answer;
  if ((answer.categoryIds ?? []).length > 0) await lockCategoriesForShare(trx);
  if (first.conversationId !== null) await lockConversations(trx, first.trayId, [first.conversationId]);
  const letter = await lockLaterLetter(trx, id, { skips: true });
  if (letter === null || letter.state !== "waiting" || letter.at > deps.now()) return ok(null);
  const { conversationId } = letter;
  if (conversationId !== null) {
    const facts = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
    if (await isPutBy(trx, deps, letter, facts)) return ok(null);
  }
  const went = await goes(trx, deps, letter, answer);
  if (!went.ok) return went;
  await endLaterLetter(trx, id, "sent", deps.now(), went.value.messageId);
  if (conversationId === null) await goOnIn(trx, letter.series.id, went.value.conversationId);
  return ok(went.value.conversationId);
}

type Went = { readonly messageId: MessageId; readonly conversationId: ConversationId };

async function goes(
  trx: Transaction,
  deps: Within,
  { id, memberId, trayId, conversationId }: LaterLetter,
  answer: Answer,
): Promise<Result<Went, Refusal>> {
  const grant = await grantOfMember(trx, memberId, trayId, deps.now());
  const writer = (await allMembers(trx)).find((member) => member.id === memberId);
  if (grant === null || writer === undefined) return { ok: false, error: { kind: "no-such", what: "member" } };
  // Nobody is there to be asked about what is crossing; what came was looked at above.
  const going = { ...answer, anyway: true, ownDraft: id };
  if (conversationId === null) return startWithin(trx, deps, grant, writer, going);
  const sent = await answerWithin(trx, deps, grant, writer, conversationId, going);
  return sent.ok ? ok({ messageId: sent.value, conversationId }) : sent;
}

async function holdRefused(trx: Transaction, deps: Within, id: DraftId, refusal: Refusal): Promise<void> {
  const letter = await lockLaterLetter(trx, id, { skips: false });
  if (letter?.state !== "waiting") return;
  const why = writtenDown(refusalInWords(refusal));
  await changeLaterLetter(trx, id, { state: "held", heldBy: { kind: "refused", why } });
  await tellHeld(trx, deps, letter, "");
}
