import type { EmailAddress } from "../../core/kernel/email-address";
import { dateOf, type Instant } from "../../core/kernel/instant";
import type { MailMessage } from "../../core/message/mail-message";
import { commonAddresses, type PlacedMessage, placeAll } from "../../core/threading/place-all";
import { lastRealMove, type Move, whoseTurn } from "../../core/turns/whose-turn";
import { parseMessage, readMailFiles, safeHtmlOf } from "../../mail/index";
import { writtenDown } from "../base/written-down";

const iso = (at: Instant | null) => (at === null ? null : dateOf(at).toISOString());

/** Everything understood of the messages in a file, one object each. */
export async function* inspectMessages(path: string) {
  for await (const raw of readMailFiles(path, { takesAll: true })) {
    const { message } = await parseMessage(raw);
    yield {
      file: path,
      messageId: message.messageId,
      date: iso(message.date),
      from: message.from,
      to: message.to,
      cc: message.cc,
      replyTo: message.replyTo,
      subject: message.subject,
      inReplyTo: message.inReplyTo,
      references: message.references,
      text: message.text,
      ownText: message.ownText,
      kind: message.classification.kind,
      kindReason: writtenDown(message.classification.reason),
      failedRecipients: message.failedRecipients,
      list: message.list,
      unsubscribe: message.unsubscribe,
      attachments: message.attachments.map(({ fileName, contentType, size, sha256, inline }) => ({
        fileName,
        contentType,
        size,
        sha256,
        inline,
      })),
      betterPart: message.betterPart,
      appointments: message.appointments,
      protection: message.protection,
      warnings: message.warnings,
    };
  }
}

/**
 * The conversations of a file of mail as importing it would come to them, each the Message-IDs of its messages in order.
 * Where it is not said which addresses are `ours`, those count that are in at least half of the messages.
 */
export async function inspectThreads(
  path: string,
  ours: readonly EmailAddress[] | null = null,
): Promise<(string | null)[][]> {
  const messages = await messagesIn(path);
  const threads = placeAll(messages, ours ?? commonAddresses(messages));
  return threads.map((thread) => thread.map((message) => message.messageId));
}

/** Whose move it is in each conversation of a file of mail with both sides, judged from the mail up to `now`. */
export async function inspectTurns(path: string, ours: readonly EmailAddress[], now: Instant) {
  const messages = (await messagesIn(path)).filter((message) => message.date === null || message.date <= now);
  return placeAll(messages, ours).map((thread) => {
    const moves = thread.map((message): Move & { messageId: string | null } => ({
      at: message.date ?? now,
      direction: message.from !== null && ours.includes(message.from) ? "out" : "in",
      kind: message.classification.kind,
      messageId: message.messageId,
    }));
    const turn = whoseTurn(moves);
    return {
      messageIds: thread.map((message) => message.messageId),
      turn: turn.kind,
      since: turn.kind === "nobody" ? null : iso(turn.since),
      lastRealMessageId: lastRealMove(moves)?.messageId ?? null,
    };
  });
}

/** The HTML of the first message in a file as it would be shown. */
export async function inspectHtml(path: string) {
  for await (const raw of readMailFiles(path, { takesAll: true })) {
    const { message } = await parseMessage(raw);
    const safe = (await safeHtmlOf(raw)) ?? { html: "", remoteContent: [], warnings: ["it has no HTML part"] };
    return { html: safe.html, text: message.text, remoteContent: safe.remoteContent, warnings: safe.warnings };
  }
  return { html: "", text: "", remoteContent: [], warnings: ["there is no message in the file"] };
}

type Listed = PlacedMessage & Pick<MailMessage, "classification">;

// Only what the figures need is held, so that a large file fits.
async function messagesIn(path: string): Promise<Listed[]> {
  const messages: Listed[] = [];
  for await (const raw of readMailFiles(path, { takesAll: true })) {
    const { message } = await parseMessage(raw);
    const { messageId, inReplyTo, references, date, subject, to, cc, classification, reportedIds } = message;
    const from = message.from?.address ?? null;
    const recipients = [...to, ...cc].map(({ address }) => address);
    const isList = classification.kind === "list";
    const threaded = { messageId, inReplyTo, references, reportedIds };
    messages.push({ ...threaded, date, subject, from, recipients, isList, classification });
  }
  return messages;
}
