import type { Effect } from "../../core/journal/entry";
import { domainOf } from "../../core/kernel/email-address";
import { type BatchId, type MessageId, trustedId } from "../../core/kernel/ids";
import { later, MINUTE, SECOND } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import {
  handedOverSince,
  lockOutgoing,
  lockSendingRate,
  type OutgoingMessage,
  setDelivery,
} from "../../storage/mail/index";
import { writingTexts } from "../../texts/en/writing";
import { saidOf } from "../../texts/said";
import type { Kept } from "../../texts/stored";
import type { Deps, Within } from "../base/deps";
import { rulesAt } from "../base/routing-cache";
import { asText, writtenDown } from "../base/written-down";
import { carryOut } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";
import { isReportAsked } from "../rules/reports-by-rules";

const said = saidOf(writingTexts);

/** Which try this is; after the last one a message that cannot be handed over has failed. */
export type Attempt = { readonly number: number; readonly last: boolean };

const UNCERTAIN = said("writing.theProgramStoppedWhileThis");

/**
 * Sends a message that waits to go. Throws when it should be tried again. What is out is never sent again; a try that was
 * cut off between handing over and noting it is left to a person, since a second copy cannot be called back.
 */
export async function sendMessage(deps: Deps, id: MessageId, attempt: Attempt): Promise<void> {
  const message = await inTransaction(deps.db, async (trx) => {
    const held = await lockOutgoing(trx, id);
    if (held === null) return null;
    if (held.state === "going") await failSending(trx, deps, held, UNCERTAIN);
    if (held.state !== "waiting") return null;
    if (await isPaced(trx, deps, held)) return null;
    const asksReport = held.asksReport || (!held.isAutomatic && (await isReportAsked(trx, deps, held)));
    await setDelivery(trx, id, { state: "going", reason: null }, deps.now());
    return { ...held, asksReport };
  });
  if (message === null) return;
  const handedOver = await deps.mail.handOver(
    // RFC 3834 3.3: nothing comes back to what answered by itself.
    { from: message.isAutomatic ? "" : message.from, to: message.to },
    message.raw,
    message.asksReport ? id : null,
  );
  await inTransaction(deps.db, async (trx) => {
    if (handedOver.kind === "accepted") {
      await setDelivery(trx, id, { state: "sent", reason: null }, deps.now());
      await wantRules(trx, deps, message);
    } else if (handedOver.kind === "refused" || attempt.last) {
      await failSending(trx, deps, message, handedOver.reason);
    } else {
      await setDelivery(trx, id, { state: "waiting", reason: handedOver.reason }, deps.now());
    }
  });
  deps.publishChange({ trayId: message.trayId, conversationId: message.conversationId });
  if (handedOver.kind === "not-now" && !attempt.last) {
    throw new Error(`message ${id}, try ${attempt.number}: ${asText(handedOver.reason)}`);
  }
}

// A job of its own: whatever a rule comes to, the message is out.
async function wantRules(trx: Transaction, deps: Within, { id, trayId, isAutomatic }: OutgoingMessage): Promise<void> {
  const rules = isAutomatic ? [] : await rulesAt({ ...deps, db: trx }, trayId, "sending");
  if (rules.length > 0) await deps.jobs.enqueue(trx, { kind: "rules-of-sent", messageId: id, trayId });
}

const PACE = MINUTE;

// Too much at once makes servers suspicious: the message waits for its turn as a new job.
async function isPaced(trx: Transaction, deps: Within, message: OutgoingMessage): Promise<boolean> {
  const { aMinute, perDomainAMinute } = deps.sending;
  const limits: readonly (readonly [string | null, number])[] = [
    [null, aMinute],
    ...[...new Set(message.to.map(domainOf))].map((domain) => [domain, perDomainAMinute] as const),
  ];
  if (limits.some(([, limit]) => Number.isFinite(limit))) await lockSendingRate(trx);
  for (const [domain, limit] of limits) {
    if (!Number.isFinite(limit)) continue;
    if ((await handedOverSince(trx, domain, later(deps.now(), -PACE))) < limit) continue;
    const reason =
      domain === null
        ? said("writing.atMostMessagesGoOut", { limit })
        : said("writing.atMostMessagesGoTo", { limit, domain });
    await setDelivery(trx, message.id, { state: "waiting", reason }, deps.now());
    const next = later(deps.now(), PACE / limit + SECOND);
    await deps.jobs.enqueue(trx, { kind: "send-message", messageId: message.id }, next);
    return true;
  }
  return false;
}

async function failSending(trx: Transaction, deps: Within, message: OutgoingMessage, reason: Kept): Promise<void> {
  const [conversation] = await lockConversations(trx, message.trayId, [message.conversationId]);
  if (conversation === undefined) throw new Error(`message ${message.id} is in no conversation`);
  await setDelivery(trx, message.id, { state: "failed", reason }, deps.now());
  // Nobody promised it to anybody.
  if (message.isAutomatic) return;
  const known = (await factsOf(trx, [conversation.id])).get(conversation.id) ?? NOTHING_HAPPENED;
  const effects: Effect[] = [{ kind: "send-failed", messageId: message.id, reason }];
  await carryOut(trx, deps, null, trustedId<BatchId>(deps.newId()), [{ conversation, known, effects }]);
}

/** Ends a message that was to go as failed, within a transaction that somebody else ends; says whose it is. */
export async function putSendingAside(trx: Transaction, deps: Within, id: MessageId, reason: string) {
  const message = await lockOutgoing(trx, id);
  if (message === null) return { trayId: null, byMemberId: null, about: writtenDown(said("writing.aMessage")) };
  const isOut = message.state === "going";
  if (isOut || message.state === "waiting") await failSending(trx, deps, message, isOut ? UNCERTAIN : reason);
  return {
    trayId: message.trayId,
    byMemberId: null,
    about: writtenDown(said("writing.aMessageTo", { to: message.to.join(", ") })),
  };
}

/** Puts a message that failed back to go; the conversation keeps its standing until somebody decides. */
export async function sendAgain(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Result<null, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return inTransaction(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const message = await lockOutgoing(trx, id);
    if (message === null || message.trayId !== grant.tray.id) return err({ kind: "no-such", what: "message" });
    if (message.state !== "failed") return err({ kind: "already-sent" });
    await setDelivery(trx, id, { state: "waiting", reason: null }, deps.now());
    await deps.jobs.enqueue(trx, { kind: "send-message", messageId: id });
    deps.publishChange({ trayId: message.trayId, conversationId: message.conversationId });
    return ok(null);
  });
}
