import type { Whom } from "../../core/deciding/decision";
import { expectedBy } from "../../core/deciding/plan-decision";
import type { Effect } from "../../core/journal/entry";
import type { Mailbox } from "../../core/kernel/email-address";
import {
  type BatchId,
  type ConversationId,
  type DraftAttachmentId,
  type DraftId,
  type ExpectationId,
  type FollowUpId,
  type MemberId,
  type MessageId,
  trustedId,
} from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { NamedFile } from "../../core/kernel/named-file";
import { err, ok, type Result } from "../../core/kernel/result";
import type { Filing } from "../../core/records/filing-means";
import { type ConversationFacts, NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { moveEffect } from "../../core/turns/move-effect";
import { htmlOfText } from "../../core/writing/html-of-text";
import { planAnswer } from "../../core/writing/plan-answer";
import { membersOfTray, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { conversationRow, correspondenceOf, endDraft, endOwnDraft, rawMessage } from "../../storage/conversation/index";
import { factsOf, lockConversations, type NewMessage } from "../../storage/facts/index";
import { recordsByIds } from "../../storage/records/index";
import { refusalsTexts } from "../../texts/en/refusals";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { factOf } from "../base/message-fact";
import { carryOut, isEmpty, notToSettle } from "../changes/change-conversations";
import { aliasesOf, withAliases } from "../deciding/awaiting";
import { fileWithin } from "../deciding/decide";
import { whoIsPresent } from "../reading/presence";
import { saveReplyDefault } from "../reading/reply-defaults";
import type { SeenDraft } from "../reading/shared-drafts";
import type { Refusal } from "../refusals/refusal";
import { authorOf, type Letter, saveLetter, storedLetter, type Writer } from "../sending/letters";
import { attachmentsOfDraft } from "./draft-attachments";

const said = saidOf(refusalsTexts);

/** What happens to the conversation once the answer is on its way. */
export type AfterAnswer =
  | { readonly kind: "expect"; readonly until: Instant | null; readonly whom?: Whom }
  | { readonly kind: "keep" }
  | { readonly kind: "settle" }
  /** What was awaited is awaited still, and nothing besides. */
  | { readonly kind: "wait" };

export type Answer = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly subject: string;
  /** As the editor gives it; it is made harmless before it goes out, and the text part is made from it. */
  readonly html: string;
  readonly after: AfterAnswer;
  /** Whether the mail systems on the way are asked to report what becomes of it. */
  readonly asksReport?: boolean;
  /** The version of the conversation that the writer knew when she began; null where nobody can have been faster. */
  readonly seenVersion?: number | null;
  /** True sends it whoever writes or wrote meanwhile. */
  readonly anyway?: boolean;
  /** The message that is passed on with it to somebody outside; it then answers nothing. */
  readonly passesOn?: MessageId | null;
  /** What whoever wrote is told of that; null where she is told nothing. */
  readonly informs?: string | null;
  /** When it stops to matter; null, or left out, for never. */
  readonly expiresAt?: Instant | null;
  /** What its writer promises in it and follows up herself, with or without a date. */
  readonly promises?: readonly { readonly text: string; readonly dueAt: Instant | null }[];
  /** On which record the conversation is filed with it; null on none. */
  readonly files?: Filing | null;
  /** The files that go with it. */
  readonly enclosures?: readonly DraftAttachmentId[];
  /** The shared draft that it was, which ends with it. */
  readonly draft?: SeenDraft | null;
  /** The draft of one's own that it was, which ends with it as well. */
  readonly ownDraft?: DraftId | null;
};

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
  const [held] = await lockConversations(trx, grant.tray.id, [conversationId]);
  if (held === undefined) return err({ kind: "no-such-conversation" });
  const known = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
  if (isEmpty(known)) return err({ kind: "no-such-conversation" });
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
  const effects = [...filed.value, ...withAliases(awaited, aliases), ...followUpsOf(deps, grant, answer)];
  const batchId = trustedId<BatchId>(first.id);
  await carryOut(trx, deps, grant.memberId, batchId, [{ conversation: { ...held, version }, known: facts, effects }]);
  await endWriting(trx, deps, grant, answer);
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
export function answerProblem(deps: Within, { role }: TrayGrant, { to, cc, after }: Answer): Refusal | null {
  if (role === "reader") return { kind: "readers-only-read" };
  if (to.length + cc.length === 0) return { kind: "no-recipient" };
  const isPast = after.kind === "expect" && after.until !== null && after.until <= deps.now();
  return isPast ? { kind: "date-is-past" } : null;
}

/** What comes to an end with a message that goes: the draft that it was; how it was written is remembered. */
export async function endWriting(trx: Transaction, deps: Within, grant: TrayGrant, answer: Answer): Promise<void> {
  if (answer.ownDraft != null) await endOwnDraft(trx, grant, answer.ownDraft, deps.now());
  await rememberHabit(trx, grant, answer);
}

// Offered to her the next time.
async function rememberHabit(trx: Transaction, { memberId }: TrayGrant, { to, after }: Answer): Promise<void> {
  const [first] = to;
  if (first === undefined || after.kind === "wait") return;
  const whom = after.kind === "expect" ? (after.whom ?? "any") : "any";
  await saveReplyDefault(trx, memberId, first.address, { after: after.kind, whom });
}

// Two answers to one letter, or one that has not read the newest: said before it goes, not after.
async function crossing(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  id: ConversationId,
  { seenVersion = null, anyway = false, draft = null }: Answer,
  { messages }: ConversationFacts,
): Promise<Refusal | null> {
  if (draft !== null && !(await endDraft(trx, grant, draft, "sent", deps.now()))) return { kind: "draft-changed" };
  if (anyway) return null;
  const unseen = messages.filter(({ version }) => seenVersion !== null && version > seenVersion);
  const nameOf = async (memberId: MemberId | null) =>
    (await membersOfTray(trx, grant.tray.id)).find((member) => member.id === memberId)?.name ??
    said("refusals.aColleague");
  const ours = unseen.findLast(({ direction }) => direction === "out");
  if (ours !== undefined) return { kind: "answered-meanwhile", who: await nameOf(ours.authorId) };
  const theirs = unseen.findLast((message) => moveEffect(message) === "they-wrote");
  if (theirs !== undefined) return { kind: "new-message", who: theirs.fromName || theirs.from };
  const writing = (await whoIsPresent({ ...deps, db: trx }, grant, id)).find(({ doing }) => doing === "writing");
  return writing === undefined ? null : { kind: "also-writing", who: await nameOf(writing.memberId) };
}

/** What a decision that goes with a message of ours comes to. */
export function effectsAfter(answer: Answer, messageId: MessageId, expectationId: ExpectationId): Effect[] {
  switch (answer.after.kind) {
    case "expect":
      return [
        expectedBy(
          { ...answer.after, expectationId },
          answer.to.map(({ address }) => address),
          messageId,
        ),
      ];
    case "keep":
      return [{ kind: "kept" }];
    case "settle":
      return [{ kind: "settled" }];
    case "wait":
      return [];
  }
}

/** What is promised in a message of ours, as follow-ups of whoever writes it. */
export function followUpsOf(deps: Within, { memberId }: TrayGrant, { promises = [] }: Answer): Effect[] {
  return promises.map(({ text, dueAt }) => {
    const followUpId = trustedId<FollowUpId>(deps.newId());
    return { kind: "follow-up-set", followUpId, forMember: memberId, dueAt, text };
  });
}

/** The answer, and the word to whoever wrote where it is passed on; null where there is no such message to pass on. */
async function lettersOf(
  trx: Transaction,
  grant: TrayGrant,
  id: ConversationId,
  answer: Answer,
  enclosed: readonly NamedFile[],
): Promise<readonly Letter[] | null> {
  const { to, cc, subject, html, passesOn = null, informs = null } = answer;
  const messages = await correspondenceOf(trx, grant, id);
  const row = await conversationRow(trx, grant, id);
  const [filed] = await recordsByIds(trx, grant, answer.files == null ? [] : [answer.files.recordId]);
  const recordCodes = [...new Set([...(row?.recordCodes ?? []), ...(filed === undefined ? [] : [filed.code])])];
  const { inReplyTo, references, ...reply } = planAnswer(messages, grant.tray.addresses);
  const written = { to, cc, subject, html, enclosed, recordCodes };
  if (passesOn === null) return [{ ...written, inReplyTo, references, carries: null }];
  const carried = messages.some((message) => message.id === passesOn) ? await rawMessage(trx, grant, passesOn) : null;
  if (carried === null) return null;
  const passed: Letter = { ...written, inReplyTo: null, references: [], carries: carried.raw };
  if (informs === null || reply.to.length === 0) return [passed];
  const said = htmlOfText(informs);
  return [passed, { ...reply, cc: [], html: said, inReplyTo, references, carries: null, enclosed: [], recordCodes }];
}
