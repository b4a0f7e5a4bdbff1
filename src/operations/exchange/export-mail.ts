import type { Readable } from "node:stream";
import type { EmailAddress } from "../../core/kernel/email-address";
import { mailboxName } from "../../core/kernel/email-address";
import type { ConversationId, MessageId } from "../../core/kernel/ids";
import { dateOf } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { type ExportedMessage, emlZip, mboxOf, mboxStream } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import { rawMessage } from "../../storage/conversation/index";
import { type MessageWithPeople, messagesToExport, rawMessagesAfter } from "../../storage/mail/index";
import { noteAccess, noteExport } from "../base/access-log";
import type { Deps } from "../base/deps";
import { traysOfAddresses } from "../base/routing-cache";
import { search } from "../lists/search";

export type ExportFormat = "eml" | "mbox";

/** A file made of mail as it is read, with the extension it should have. */
export type ExportedFile = { readonly content: Readable; readonly extension: "zip" | "mbox" };

// More belongs to the operator's tool, which nobody waits for.
const MAX_EXPORTED = 5_000;
const MAX_CONVERSATIONS = 1_000;

/** One conversation as a file; null when the tray has none of this id, or nothing in it. */
export async function exportConversation(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  format: ExportFormat,
): Promise<ExportedFile | null> {
  return fileOf(deps, grant, "conversation", [id], format);
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
  return ids.length === 0 ? null : fileOf(deps, grant, "search", ids, format);
}

async function fileOf(
  deps: Deps,
  grant: TrayGrant,
  what: "conversation" | "search",
  ids: readonly ConversationId[],
  format: ExportFormat,
): Promise<ExportedFile | null> {
  const messages = await messagesToExport(deps.db, grant.tray.id, ids, MAX_EXPORTED);
  if (messages.length === 0) return null;
  await noteExport(deps, grant, what, messages.length, format);
  const exported = messages.map((message): ExportedMessage => {
    const load = async () => (await rawMessage(deps.db, grant, message.id))?.raw ?? new Uint8Array();
    return { ...exportedForm(message), load };
  });
  if (format === "mbox") return { content: mboxStream(exported), extension: "mbox" };
  return { content: emlZip(exported, dateOf(deps.now())), extension: "zip" };
}

function exportedForm(message: MessageWithPeople): Omit<ExportedMessage, "load"> {
  const { sentAt, subject, recipients } = message;
  const from = { name: message.fromName, address: message.fromAddress };
  const [first = from] = recipients.to;
  return {
    sentAt,
    subject,
    correspondent: mailboxName(message.direction === "out" ? first : from),
    from: `${from.name} <${from.address}>`.trim(),
    to: recipients.to.map(({ address }) => address).join(", "),
    messageId: message.messageId ?? "",
  };
}

// A message may have 36 MB.
const PAGE = 8;

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
    if (page.length > 0) await write(mboxOf(page));
    count += page.length;
    const last = page.at(-1);
    if (last === undefined || page.length < PAGE) {
      const deed = { kind: "exported", what: "tray", count, format: "mbox" } as const;
      await noteAccess(deps.db, deps, deed, { trayId: tray.id });
      return ok({ messages: count });
    }
    after = last.id;
  }
}
