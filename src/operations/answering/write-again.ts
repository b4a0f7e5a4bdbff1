import type { Mailbox } from "../../core/kernel/email-address";
import { printMailboxes } from "../../core/kernel/email-address";
import { type DraftId, type MessageId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { DraftAttachment } from "../../core/writing/draft-attachment";
import { parseMessage } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { keepOwnDraft, rawMessage } from "../../storage/conversation/index";
import { lockOutgoing } from "../../storage/mail/index";
import type { Deps, Within } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import type { Writer } from "../sending/letters";
import { answerWithin } from "./answer-conversation";
import { attachWithin } from "./draft-attachments";

/** What a message says, to be written again. */
export type WrittenAgain = {
  readonly to: readonly Mailbox[];
  readonly cc: readonly Mailbox[];
  readonly subject: string;
  readonly html: string;
  /** The files that went with it, for a draft. */
  readonly enclosures: readonly DraftAttachment[];
};

/** What a message says as a draft has it, its files attached to that. */
export async function writtenAgain(
  trx: Transaction,
  deps: Within,
  grant: TrayGrant,
  raw: Uint8Array,
): Promise<WrittenAgain> {
  const { message, contents } = await parseMessage(raw);
  const { to, cc, subject, html } = message;
  const enclosures: DraftAttachment[] = [];
  for (const { index, fileName: name, contentType } of message.attachments)
    enclosures.push(
      await attachWithin(trx, deps, grant, { name, contentType, content: contents[index] ?? new Uint8Array() }),
    );
  return { to, cc, subject, html: html ?? "", enclosures };
}

/** Begins a first message with what one of ours says; gives the draft. */
export async function editAsNew(deps: Deps, grant: TrayGrant, id: MessageId): Promise<Result<DraftId, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  return inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<DraftId, Refusal>> => {
    const message = await rawMessage(trx, grant, id);
    if (message === null || !grant.tray.addresses.includes(message.fromAddress))
      return err({ kind: "no-such", what: "message" });
    const { to, cc, subject, html, enclosures } = await writtenAgain(trx, deps, grant, message.raw);
    const people = { to: printMailboxes(to), cc: printMailboxes(cc) };
    const content = { ...people, subject, html, enclosures, after: "expect", day: "" } as const;
    const draft = { id: trustedId<DraftId>(deps.newId()), conversationId: null, version: 0, content };
    await keepOwnDraft(trx, grant, draft, deps.now());
    return ok(draft.id);
  });
}

/** Sends what one of our messages says to somebody else, as whom it went to could not be reached; an answer is awaited. */
export async function sendToAnother(
  deps: Deps,
  grant: TrayGrant,
  writer: Writer,
  id: MessageId,
  to: Mailbox,
): Promise<Result<MessageId, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const sent = await inTransactionUnlessRefused(deps.db, async (trx) => {
    const message = await lockOutgoing(trx, id);
    if (message === null || message.trayId !== grant.tray.id) return err({ kind: "no-such", what: "message" } as const);
    const { subject, html, enclosures } = await writtenAgain(trx, deps, grant, message.raw);
    const { conversationId } = message;
    const going = { to: [to], cc: [], subject, html, enclosures: enclosures.map((file) => file.id) };
    const after = { kind: "expect", until: null } as const;
    const letter = await answerWithin(trx, deps, grant, writer, conversationId, { ...going, after, anyway: true });
    return letter.ok ? ok({ messageId: letter.value, conversationId }) : letter;
  });
  if (!sent.ok) return sent;
  deps.publishChange({ trayId: grant.tray.id, conversationId: sent.value.conversationId });
  return ok(sent.value.messageId);
}
