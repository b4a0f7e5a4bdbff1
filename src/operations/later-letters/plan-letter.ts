import { planDecision } from "../../core/deciding/plan-decision";
import { type BatchId, type ConversationId, type DraftId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type LetterPlan, laterProblem } from "../../core/later-letters/later-letter";
import { MOST_IN_SERIES } from "../../core/later-letters/series";
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
  /** When it goes; several times for a series. */
  readonly plan: LetterPlan;
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
  { id, conversationId, answer, plan, content }: LetterToPlan,
): Promise<Result<null, Refusal>> {
  const letters = lettersOf(plan.moments, answer);
  const refusal = whyNotThen(deps, grant, letters);
  if (refusal !== null) return err(refusal);
  const there = conversationId === null ? ok(null) : await inHandUncrossed(trx, deps, grant, conversationId, answer);
  if (!there.ok) return there;
  for (const [place, letter] of letters.entries()) {
    const own = place === 0 ? id : trustedId<DraftId>(deps.newId());
    const isHers = await planDraft(trx, grant, { id: own, conversationId, content }, deps.now());
    if (!isHers) return err({ kind: "no-such", what: "draft" });
    await keepLaterLetter(trx, {
      ...{ id: own, trayId: grant.tray.id, memberId: grant.memberId, conversationId, ...letter },
      ...{ ifSilent: plan.ifSilent, untilSettled: plan.untilSettled },
      series: { id, part: place + 1, parts: letters.length },
      seenVersion: there.value?.conversation.version ?? 0,
    });
  }
  const [first] = letters;
  if (there.value !== null && first !== undefined) await restUntilThen(trx, deps, grant, id, first.at, there.value);
  return ok(null);
}

type Going = { readonly at: Instant; readonly answer: Answer };

// What goes at each of some moments, in their order.
function lettersOf(moments: readonly Instant[], answer: Answer): readonly Going[] {
  const inOrder = [...new Set(moments)].toSorted((a, b) => a - b);
  return inOrder.map((at) => ({ at, answer: inOrder.length === 1 ? answer : dueAfter(answer, at) }));
}

function whyNotThen(deps: Within, grant: TrayGrant, letters: readonly Going[]): Refusal | null {
  if (letters.length > MOST_IN_SERIES) return { kind: "too-many", most: MOST_IN_SERIES };
  for (const { at, answer } of letters) {
    const problem = laterProblem({ at }, deps.now());
    if (problem !== null) return { kind: "not-then", why: problem };
    if (isDueBefore(answer, at)) return { kind: "due-before-it-goes" };
    const refusal = answerProblem({ ...deps, now: () => at }, grant, answer);
    if (refusal !== null) return refusal;
  }
  return null;
}

// Of a series each letter awaits an answer, but by a day only that is still to come when it goes.
function dueAfter(answer: Answer, at: Instant): Answer {
  const { after } = answer;
  return after.kind === "expect" && isDueBefore(answer, at) ? { ...answer, after: { ...after, until: null } } : answer;
}

/** Whether the reply to a letter would be due before it has gone. */
export function isDueBefore({ after }: Pick<Answer, "after">, at: Instant): boolean {
  return after.kind === "expect" && after.until !== null && after.until <= at;
}

// What is our move rests until the letter goes, or somebody writes; what waits for a reply waits on.
async function restUntilThen(
  trx: Transaction,
  deps: Within,
  { memberId }: TrayGrant,
  id: DraftId,
  until: Instant,
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
