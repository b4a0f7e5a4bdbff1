import { planDecision } from "../../core/deciding/plan-decision";
import { type BatchId, type ConversationId, type DraftId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { type LaterTerms, laterProblem } from "../../core/later-letters/later-letter";
import { deriveFlow, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Draft } from "../../core/writing/draft";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { planDraft } from "../../storage/conversation/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { keepLaterLetter } from "../../storage/mail/index";
import type { Answer } from "../answering/answer";
import { answerProblem } from "../answering/answer-conversation";
import { crossing } from "../answering/crossing";
import type { Deps, Within } from "../base/deps";
import { type ConversationInHand, carryOut, isEmpty } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";

/** A letter that is not to go at once: what goes, when, and what its writer has of it in hand. */
export type LetterToPlan = {
  readonly id: DraftId;
  /** What it answers or passes on; null for a first message. */
  readonly conversationId: ConversationId | null;
  readonly answer: Answer;
  readonly terms: LaterTerms;
  /** The draft that it is, to be written on when it is called off. */
  readonly content: Draft;
};

/** Plans a letter: it goes by itself at its moment, unless something comes before. It is checked now as if it went then. */
export async function planLetter(deps: Deps, grant: TrayGrant, letter: LetterToPlan): Promise<Result<null, Refusal>> {
  const planned = await inTransactionUnlessRefused(deps.db, (trx) => planWithin(trx, deps, grant, letter));
  const { conversationId } = letter;
  if (planned.ok && conversationId !== null) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return planned;
}

async function planWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  { id, conversationId, answer, terms, content }: LetterToPlan,
): Promise<Result<null, Refusal>> {
  const problem = laterProblem(terms, deps.now());
  if (problem !== null) return err({ kind: "not-then", why: problem });
  const refusal = answerProblem({ ...deps, now: () => terms.at }, grant, answer);
  if (refusal !== null) return err(refusal);
  const there = conversationId === null ? ok(null) : await inHandUncrossed(trx, deps, grant, conversationId, answer);
  if (!there.ok) return there;
  const isHers = await planDraft(trx, grant, { id, conversationId, content }, deps.now());
  if (!isHers) return err({ kind: "no-such", what: "draft" });
  await keepLaterLetter(trx, {
    ...{ id, trayId: grant.tray.id, memberId: grant.memberId, conversationId, answer },
    ...{
      at: terms.at,
      ifSilent: terms.ifSilent && conversationId !== null,
      seenVersion: there.value?.conversation.version ?? 0,
    },
  });
  if (there.value !== null) await restUntilThen(trx, deps, grant, id, terms, there.value);
  return ok(null);
}

// What is our move rests until the letter goes, or somebody writes; what waits for a reply waits on.
async function restUntilThen(
  trx: Transaction,
  deps: Within,
  { memberId }: TrayGrant,
  id: DraftId,
  { at: until }: LaterTerms,
  inHand: ConversationInHand,
): Promise<void> {
  const { kind } = deriveFlow(inHand.known).standing;
  if (kind !== "to-sort" && kind !== "our-move") return;
  const effects = planDecision({ kind: "rest", until }, inHand.known);
  // The letter names the batch, so that both are called off together.
  await carryOut(trx, deps, memberId, trustedId<BatchId>(id), [{ ...inHand, effects }]);
}

// A conversation, held; refused where something came while its writer wrote.
async function inHandUncrossed(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  id: ConversationId,
  answer: Answer,
): Promise<Result<ConversationInHand, Refusal>> {
  const [held] = await lockConversations(trx, grant.tray.id, [id]);
  const known = (await factsOf(trx, [id])).get(id) ?? NOTHING_HAPPENED;
  if (held === undefined || isEmpty(known)) return err({ kind: "no-such-conversation" });
  const refusal = await crossing(trx, deps, grant, id, answer, known);
  return refusal === null ? ok({ conversation: held, known }) : err(refusal);
}
