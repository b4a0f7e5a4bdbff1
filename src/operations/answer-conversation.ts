import { createHash } from "node:crypto";
import { deriveDocket } from "../core/docket/derive-docket";
import type { Effect } from "../core/journal/entry";
import type { Mailbox } from "../core/kernel/email-address";
import { domainOf, readEmailAddress } from "../core/kernel/email-address";
import { type BatchId, type ConversationId, type ExpectationId, type MessageId, trustedId } from "../core/kernel/ids";
import { type Instant, instant, later, SECOND } from "../core/kernel/instant";
import { err, ok, type Result } from "../core/kernel/result";
import { firstWords } from "../core/message/own-text";
import { NOTHING_HAPPENED } from "../core/standing/derive-standing";
import { threadIds } from "../core/threading/place-message";
import { planAnswer } from "../core/writing/plan-answer";
import { composeMessage, parseMessage, sanitiseHtml, textOfHtml } from "../mail/index";
import {
  correspondenceOf,
  type Database,
  factsOf,
  holdConversations,
  inTransaction,
  keepRecipients,
  type NewMessage,
  storeMessage,
  type TrayGrant,
} from "../storage/index";
import { carryOut } from "./change-conversations";
import type { Deps } from "./deps";
import type { Refusal } from "./refusal";
import { dedupeKeyOf, factOf } from "./stored-form";

/** What happens to the conversation once the answer is on its way. */
export type AfterAnswer =
  | { readonly kind: "expect"; readonly until: Instant | null }
  | { readonly kind: "keep" }
  | { readonly kind: "settle" };

export type Answer = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly subject: string;
  /** As the editor gives it; it is made harmless before it goes out, and the text part is made from it. */
  readonly html: string;
  readonly after: AfterAnswer;
  /** Whether the mail systems on the way are asked to report what becomes of it. */
  readonly asksReport?: boolean;
};

/** Who writes, as the From field and the journal have it. */
export type Writer = { readonly name: string };

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
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  if (answer.to.length + answer.cc.length === 0) return err({ kind: "no-recipient" });
  if (answer.after.kind === "expect" && answer.after.until !== null && answer.after.until <= deps.now()) {
    return err({ kind: "date-is-past" });
  }
  const sent = await inTransaction(deps.db, async (trx): Promise<Result<MessageId, Refusal>> => {
    const [held] = await holdConversations(trx, grant.tray.id, [conversationId]);
    if (held === undefined) return err({ kind: "no-such-conversation" });
    const stored = await storedAnswer(trx, deps, grant, writer, conversationId, answer);
    const known = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
    const version = held.version + 1;
    const facts = { ...known, messages: [...known.messages, factOf(stored, version)] };
    await storeMessage(trx, stored, {
      conversationId,
      start: null,
      version,
      docket: deriveDocket(facts),
      who: null,
      newestText: firstWords(stored.ownText),
    });
    const effects = effectsAfter(answer, stored.id, trustedId<ExpectationId>(deps.newId()));
    const batchId = trustedId<BatchId>(stored.id);
    await carryOut(trx, deps, grant.memberId, batchId, [{ conversation: { ...held, version }, known: facts, effects }]);
    await keepRecipients(
      trx,
      stored,
      [...answer.to, ...answer.cc].map(({ address }) => address),
    );
    await deps.jobs.enqueue(trx, { kind: "send-message", messageId: stored.id }, leavesAt(deps));
    return ok(stored.id);
  });
  if (sent.ok) deps.tell({ trayId: grant.tray.id, conversationId });
  return sent;
}

const leavesAt = (deps: Deps) => later(deps.now(), deps.sending.holdMs);

function effectsAfter(answer: Answer, messageId: MessageId, expectationId: ExpectationId): Effect[] {
  switch (answer.after.kind) {
    case "expect":
      return [
        {
          kind: "expected",
          expectationId,
          from: answer.to.map((mailbox) => mailbox.address),
          until: answer.after.until,
          messageId,
        },
      ];
    case "keep":
      return [{ kind: "kept" }];
    case "settle":
      return [{ kind: "settled" }];
  }
}

async function storedAnswer(
  trx: Database,
  deps: Deps,
  grant: TrayGrant,
  writer: Writer,
  conversationId: ConversationId,
  answer: Answer,
): Promise<NewMessage> {
  const address = grant.tray.addresses[0] ?? readEmailAddress("tray@localhost.invalid");
  if (address === null || address === undefined)
    throw new Error(`tray ${grant.tray.slug} has no address to write from`);
  const id = trustedId<MessageId>(deps.newId());
  // RFC 5322 3.3: a Date has whole seconds, and the stored one must be the one that the message carries.
  const now = instant(Math.floor(deps.now() / SECOND) * SECOND);
  const { inReplyTo, references } = planAnswer(await correspondenceOf(trx, grant, conversationId));
  const { html } = sanitiseHtml(answer.html);
  const raw = await composeMessage({
    messageId: `${id}@${domainOf(address)}`,
    date: now,
    from: { name: `${writer.name}, ${grant.tray.name}`, address },
    to: answer.to,
    cc: answer.cc,
    subject: answer.subject,
    inReplyTo,
    references,
    text: textOfHtml(html),
    html,
  });
  const { message } = await parseMessage(raw);
  return {
    id,
    trayId: grant.tray.id,
    direction: "out",
    classification: { kind: "person", reason: "written here" },
    messageId: message.messageId,
    inReplyTo: message.inReplyTo,
    references: message.references,
    threadIds: threadIds(message),
    subject: message.subject,
    from: { name: writer.name, address },
    recipients: { to: answer.to, cc: answer.cc, replyTo: [] },
    sentAt: now,
    receivedAt: deps.now(),
    authorId: grant.memberId,
    raw,
    rawSha256: createHash("sha256").update(raw).digest(),
    hasHtml: false,
    failedRecipients: [],
    attachments: [],
    warnings: [],
    list: null,
    protection: null,
    hasRemoteContent: false,
    unsubscribe: null,
    trust: null,
    isNewParticipant: false,
    routes: [],
    ownText: message.ownText,
    restText: message.restText,
    dedupeKey: dedupeKeyOf(message, raw),
    delivery: "waiting",
    sending: { asksReport: answer.asksReport ?? false, leavesAt: leavesAt(deps) },
  };
}
