import type { EmailAddress } from "../core/kernel/email-address";
import { mailboxName } from "../core/kernel/email-address";
import type { ConversationId, MessageId } from "../core/kernel/ids";
import { err, ok, type Result } from "../core/kernel/result";
import { type ExportedMessage, emlZip, mboxOf } from "../mail/index";
import { type RawWithPeople, rawMessagesAfter, rawMessagesOf, type TrayGrant } from "../storage/index";
import type { Deps } from "./deps";
import { search } from "./search";
import { traysOfAddresses } from "./tray-directory";

export type ExportFormat = "eml" | "mbox";

/** A file made of mail, with the extension it should have. */
export type ExportedFile = { readonly content: Uint8Array; readonly extension: "zip" | "mbox" };

// Made in memory: more belongs to the operator's tool, which writes as it goes.
const MAX_EXPORTED = 5_000;
const MAX_CONVERSATIONS = 1_000;

/** One conversation as a file; null when the tray has none of this id, or nothing in it. */
export async function exportConversation(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  format: ExportFormat,
): Promise<ExportedFile | null> {
  const messages = await rawMessagesOf(deps.db, grant.tray.id, [id], MAX_EXPORTED);
  return messages.length === 0 ? null : fileOf(messages, format);
}

/** What a search finds as a file; null when it finds nothing. */
export async function exportSearch(
  deps: Deps,
  grant: TrayGrant,
  query: string,
  format: ExportFormat,
): Promise<ExportedFile | null> {
  const found = await search(deps, grant, query, MAX_CONVERSATIONS);
  const ids = found.map(({ row }) => row.id);
  const messages = ids.length === 0 ? [] : await rawMessagesOf(deps.db, grant.tray.id, ids, MAX_EXPORTED);
  return messages.length === 0 ? null : fileOf(messages, format);
}

async function fileOf(messages: readonly RawWithPeople[], format: ExportFormat): Promise<ExportedFile> {
  const exported = messages.map(exportedForm);
  if (format === "mbox") return { content: mboxOf(exported), extension: "mbox" };
  return { content: await emlZip(exported), extension: "zip" };
}

function exportedForm(message: RawWithPeople): ExportedMessage {
  const { raw, sentAt, subject, recipients } = message;
  const from = { name: message.fromName, address: message.fromAddress };
  const [first = from] = recipients.to;
  return {
    raw,
    sentAt,
    subject,
    correspondent: mailboxName(message.direction === "out" ? first : from),
    from: `${from.name} <${from.address}>`.trim(),
    to: recipients.to.map(({ address }) => address).join(", "),
    messageId: message.messageId ?? "",
  };
}

const PAGE = 200;

/** A whole tray as an mbox, in pieces, in the order in which it came to know its messages. */
export async function exportTray(
  deps: Deps,
  address: EmailAddress,
  write: (piece: Uint8Array) => Promise<void>,
): Promise<Result<{ readonly messages: number }, { kind: "no-such-tray" }>> {
  const [tray] = await traysOfAddresses(deps, [address]);
  if (tray === undefined) return err({ kind: "no-such-tray" });
  let after: MessageId | null = null;
  let count = 0;
  for (;;) {
    const page: Awaited<ReturnType<typeof rawMessagesAfter>> = await rawMessagesAfter(deps.db, tray.id, after, PAGE);
    if (page.length > 0) await write(mboxOf(page.map(exportedForm)));
    count += page.length;
    const last = page.at(-1);
    if (last === undefined || page.length < PAGE) return ok({ messages: count });
    after = last.id;
  }
}
