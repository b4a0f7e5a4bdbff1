import { type BatchId, type ConversationId, type MessageId, type RecordId, trustedId } from "../../core/kernel/ids";
import type { NamedFile } from "../../core/kernel/named-file";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { baseSubject } from "../../core/threading/base-subject";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { lockConversations } from "../../storage/facts/index";
import { correspondentsOf, recordByCode, recordsByIds, registerRecords } from "../../storage/records/index";
import type { Deps, Within } from "../base/deps";
import { factOf } from "../base/message-fact";
import { carryOut } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";
import { authorOf, saveLetter, storedLetter, type Writer } from "../sending/letters";
import type { Answer } from "./answer";
import { answerProblem, filedWith } from "./answer-conversation";
import { attachmentsOfDraft } from "./draft-attachments";
import { categoriesWith, effectsAfter, endWriting, followUpsOf } from "./with-the-letter";

/** What a message about a record begins with: whom it could go to, those of the record first, and its token for the subject. */
export type OpeningMessage = {
  readonly id: RecordId;
  readonly code: string;
  readonly title: string;
  readonly people: readonly { readonly name: string; readonly address: string }[];
};

/** What a message about a record begins with; null when there is no open record of this code that she may know of. */
export async function openingMessage(deps: Deps, grant: TrayGrant, code: string): Promise<OpeningMessage | null> {
  const record = await recordByCode(deps.db, grant, code);
  if (record === null || record.closed) return null;
  const [[entry], written] = await Promise.all([
    registerRecords(deps.db, grant, [record.id]),
    correspondentsOf(deps.db, grant, record.id),
  ]);
  const named = (entry?.addresses ?? []).map((address) => ({
    address: address as string,
    name: written.find((one) => one.address === address)?.name ?? "",
  }));
  const others = written.filter(({ address }) => !named.some((one) => one.address === address));
  return { id: record.id, code: record.code, title: record.title, people: [...named, ...others] };
}

/**
 * Writes to somebody: a new conversation, the writer's, with what is awaited in it, filed with it where the message says so.
 * Whoever answers about a record, in whatever thread, is found by its code where the subject carries it. The message's id
 * names the batch.
 */
export async function startConversation(
  deps: Deps,
  grant: TrayGrant,
  writer: Writer,
  answer: Answer,
): Promise<Result<{ readonly messageId: MessageId; readonly conversationId: ConversationId }, Refusal>> {
  const started = await inTransactionUnlessRefused(deps.db, (trx) => startWithin(trx, deps, grant, writer, answer));
  if (started.ok) deps.publishChange({ trayId: grant.tray.id, conversationId: started.value.conversationId });
  return started;
}

/** The same within a transaction that somebody else ends. */
export async function startWithin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  writer: Writer,
  answer: Answer,
): Promise<Result<{ readonly messageId: MessageId; readonly conversationId: ConversationId }, Refusal>> {
  const problem = answerProblem(deps, grant, answer);
  if (problem !== null) return err(problem);
  const conversationId = trustedId<ConversationId>(deps.newId());
  const enclosed = await attachmentsOfDraft(trx, grant, answer.enclosures ?? []);
  if (!enclosed.ok) return enclosed;
  const begun = await begin(trx, deps, grant, writer, { conversationId, answer, enclosed: enclosed.value });
  return begun.ok ? ok({ messageId: begun.value, conversationId }) : begun;
}

type Beginning = {
  readonly conversationId: ConversationId;
  readonly answer: Answer;
  readonly enclosed: readonly NamedFile[];
};

async function begin(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  writer: Writer,
  { conversationId, answer, enclosed }: Beginning,
): Promise<Result<MessageId, Refusal>> {
  const { to, cc, bcc = [], subject, html, files = null } = answer;
  const given = await categoriesWith(trx, grant, answer);
  const records = await recordsByIds(trx, grant, files === null ? [] : [files.recordId]);
  const written = { to, cc, bcc, subject, html, enclosed, recordCodes: records.map(({ code }) => code) };
  const letter = { ...written, inReplyTo: null, references: [], carries: null };
  const message = await storedLetter(deps, authorOf(grant, writer), letter, answer);
  const facts = { ...NOTHING_HAPPENED, messages: [factOf(message, 1)] };
  const filed = await filedWith(trx, deps, grant, answer, facts);
  if (!filed.ok) return filed;
  const start = { subject, baseSubject: baseSubject(subject).base, createdAt: deps.now() };
  await saveLetter(trx, deps, message, {
    conversationId,
    start,
    version: 1,
    who: to[0] ?? cc[0] ?? bcc[0] ?? null,
    facts,
  });
  const [held] = await lockConversations(trx, grant.tray.id, [conversationId]);
  if (held === undefined) throw new Error("what was stored a moment ago is there");
  const effects = [
    { kind: "assigned", ownerId: grant.memberId } as const,
    ...filed.value,
    ...given,
    ...effectsAfter(answer, message.id, trustedId(deps.newId())),
    ...followUpsOf(deps, grant, answer),
  ];
  const batchId = trustedId<BatchId>(message.id);
  await carryOut(trx, deps, grant.memberId, batchId, [{ conversation: held, known: facts, effects }]);
  await endWriting(trx, deps, grant, answer, { messageId: message.id, conversationId });
  return ok(message.id);
}
