import type { Effect } from "../../core/journal/entry";
import {
  type BatchId,
  type ConversationId,
  type ExpectationId,
  type MessageId,
  trustedId,
} from "../../core/kernel/ids";
import type { NamedFile } from "../../core/kernel/named-file";
import { err, ok, type Result } from "../../core/kernel/result";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { fillingsIn } from "../../core/templates/fill-template";
import { unfilledBlanks } from "../../core/templates/unfilled";
import { htmlOfText } from "../../core/writing/html-of-text";
import { planAnswer } from "../../core/writing/plan-answer";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { conversationRow, correspondenceOf, endDraft, rawMessage } from "../../storage/conversation/index";
import { factsOf, lockConversations, type NewMessage } from "../../storage/facts/index";
import { recordsByIds } from "../../storage/records/index";
import type { Deps, Within } from "../base/deps";
import { factOf } from "../base/message-fact";
import { carryOut, isEmpty, notToSettle } from "../changes/change-conversations";
import { aliasesOf, withAliases } from "../deciding/awaiting";
import { fileWithin } from "../deciding/decide";
import type { Refusal } from "../refusals/refusal";
import { askBeforeLetters } from "../sending/ask-before-letters";
import { authorOf, type Letter, saveLetter, storedLetter, type Writer } from "../sending/letters";
import type { Answer } from "./answer";
import { crossing } from "./crossing";
import { attachmentsOfDraft } from "./draft-attachments";
import { categoriesWith, effectsAfter, endWriting, followUpsOf } from "./with-the-letter";

/**
 * Answers a conversation: the message is stored with its Message-ID fixed, the decision that goes with it is in the
 * journal, and the job that sends it is handed in, all or nothing. The message's id names the batch.
 */
export async function answerConversation(
  deps: Deps,
  grant: TrayGrant,
  writer: Writer,
  conversationId: ConversationId,
  answer: Answer,
): Promise<Result<MessageId, Refusal>> {
  const sent = await inTransactionUnlessRefused(deps.db, (trx) =>
    answerWithin(trx, deps, grant, writer, conversationId, answer),
  );
  if (sent.ok) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return sent;
}

/** The same within a transaction that somebody else ends. */
export async function answerWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  writer: Writer,
  conversationId: ConversationId,
  answer: Answer,
): Promise<Result<MessageId, Refusal>> {
  const problem = answerProblem(deps, grant, answer);
  if (problem !== null) return err(problem);
  const given = await categoriesWith(trx, grant, answer);
  const [held] = await lockConversations(trx, grant.tray.id, [conversationId]);
  if (held === undefined) return err({ kind: "no-such-conversation" });
  const known = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
  if (isEmpty(known)) return err({ kind: "no-such-conversation" });
  const { draft = null } = answer;
  if (draft !== null && !(await endDraft(trx, grant, draft, "sent", deps.now()))) return err({ kind: "draft-changed" });
  const refusal = await crossing(trx, deps, grant, conversationId, answer, known);
  if (refusal !== null) return err(refusal);
  const filed = await filedWith(trx, deps, grant, answer, known);
  if (!filed.ok) return filed;
  const enclosed = await attachmentsOfDraft(trx, grant, answer.enclosures ?? []);
  if (!enclosed.ok) return enclosed;
  const letters = await lettersOf(trx, grant, conversationId, answer, enclosed.value);
  if (letters === null) return err({ kind: "no-such", what: "message" });
  const out = { facts: known, version: held.version };
  const stored: NewMessage[] = [];
  for (const letter of letters) {
    const message = await storedLetter(deps, authorOf(grant, writer), letter, answer);
    out.version += 1;
    out.facts = { ...out.facts, messages: [...out.facts.messages, factOf(message, out.version)] };
    await saveLetter(trx, deps, message, { conversationId, start: null, who: null, ...out });
    stored.push(message);
  }
  const [first] = stored;
  if (first === undefined) throw new Error("an answer is a letter at least");
  const { facts, version } = out;
  const awaited = effectsAfter(answer, first.id, trustedId<ExpectationId>(deps.newId()));
  const people = answer.to.map(({ address }) => address);
  const aliases = await aliasesOf(trx, grant.tray.id, people);
  const has = (await conversationRow(trx, grant, conversationId))?.categoryIds ?? [];
  const effects = [
    ...filed.value,
    ...given.filter((effect) => !has.includes(effect.categoryId)),
    ...withAliases(awaited, aliases),
    ...followUpsOf(deps, grant, answer),
  ];
  const batchId = trustedId<BatchId>(first.id);
  const inHand = { conversation: { ...held, version }, known: facts };
  await carryOut(trx, deps, grant.memberId, batchId, [{ ...inHand, effects }]);
  await askBeforeLetters(trx, deps, inHand);
  await endWriting(trx, deps, grant, answer, { messageId: first.id, conversationId });
  return ok(first.id);
}

/** What filing a conversation with a message of ours comes to. */
export async function filedWith(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  { files = null, after }: Answer,
  known: ConversationFacts,
): Promise<Result<Effect[], Refusal>> {
  const filed = files === null ? ok([]) : await fileWithin(trx, deps, grant, { ...files, means: "sending" }, known);
  if (!filed.ok || after.kind !== "settle") return filed;
  const change = { known, effects: [...filed.value, { kind: "settled" } as const] };
  return (await notToSettle(trx, grant, [change])).length === 0 ? filed : err({ kind: "file-first" });
}

/** Why a message of ours cannot go, whatever it is about; null when it can. */
export function answerProblem(deps: Within, { role }: TrayGrant, answer: Answer): Refusal | null {
  const { to, cc, bcc = [], html, after, subject } = answer;
  if (role === "reader") return { kind: "readers-only-read" };
  if (to.length + cc.length + bcc.length === 0) return { kind: "no-recipient" };
  const unfilled = [...fillingsIn(subject), ...unfilledBlanks(html).map(({ label }) => label)];
  if (unfilled.length > 0) return { kind: "unfilled", blanks: unfilled };
  const isPast = after.kind === "expect" && after.until !== null && after.until <= deps.now();
  return isPast ? { kind: "date-is-past" } : null;
}

/** The answer, and the word to whoever wrote where it is passed on; null where there is no such message to pass on. */
async function lettersOf(
  trx: Transaction,
  grant: TrayGrant,
  id: ConversationId,
  answer: Answer,
  enclosed: readonly NamedFile[],
): Promise<readonly Letter[] | null> {
  const { to, cc, bcc = [], subject, html, passesOn = null, informs = null, wordsOnly = false } = answer;
  const messages = await correspondenceOf(trx, grant, id);
  const row = await conversationRow(trx, grant, id);
  const [filed] = await recordsByIds(trx, grant, answer.files == null ? [] : [answer.files.recordId]);
  const recordCodes = [...new Set([...(row?.recordCodes ?? []), ...(filed === undefined ? [] : [filed.code])])];
  const { inReplyTo, references, ...reply } = planAnswer(messages, grant.tray.addresses);
  const written = { to, cc, bcc, subject, html, enclosed, recordCodes };
  if (passesOn === null) return [{ ...written, inReplyTo, references, carries: null }];
  const carried = messages.some((message) => message.id === passesOn) ? await rawMessage(trx, grant, passesOn) : null;
  if (carried === null) return null;
  const passed: Letter = { ...written, inReplyTo: null, references: [], carries: wordsOnly ? null : carried.raw };
  if (informs === null || reply.to.length === 0) return [passed];
  const said = htmlOfText(informs);
  return [passed, { ...reply, cc: [], html: said, inReplyTo, references, carries: null, enclosed: [], recordCodes }];
}
