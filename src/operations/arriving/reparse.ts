import { isDeepStrictEqual } from "node:util";
import { deriveDocket } from "../../core/docket/derive-docket";
import type { ConversationId, MessageId } from "../../core/kernel/ids";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { parseMessage } from "../../mail/index";
import { inTransaction } from "../../storage/base/index";
import { conversationsHeld, factsOf, relist, saveDockets } from "../../storage/facts/index";
import { parsedColumns, parsesAfter, rewriteParse, type StoredParse } from "../../storage/mail/index";
import type { Deps } from "../base/deps";

/** What reading everything again came to: how many messages, how many changed, and in what. */
export type ReparseReport = {
  readonly read: number;
  readonly changed: number;
  readonly fields: Readonly<Record<string, number>>;
};

const BATCH = 100;

/**
 * Understands every message from outside again from its bytes and keeps what is different, with the dockets that it leads
 * to. Messages stay in their conversations, and decisions stay as they were made.
 */
export async function reparse(deps: Deps, onProgress: (read: number) => void): Promise<ReparseReport> {
  const fields = new Map<string, number>();
  let read = 0;
  let changed = 0;
  for await (const page of pages(deps)) {
    const touched = new Set<ConversationId>();
    for (const stored of page) {
      const different = await rewritten(deps, stored);
      for (const field of different) fields.set(field, (fields.get(field) ?? 0) + 1);
      if (different.length === 0) continue;
      touched.add(stored.conversationId);
      changed += 1;
    }
    await deriveAgain(deps, [...touched]);
    read += page.length;
    onProgress(read);
  }
  return { read, changed, fields: Object.fromEntries(fields) };
}

async function* pages(deps: Deps): AsyncGenerator<StoredParse[]> {
  let after: MessageId | null = null;
  for (;;) {
    const page: StoredParse[] = await parsesAfter(deps.db, after, BATCH);
    const last = page.at(-1);
    if (last === undefined) return;
    yield page;
    after = last.id;
  }
}

async function rewritten(deps: Deps, stored: StoredParse): Promise<string[]> {
  const { message } = await parseMessage(stored.raw);
  const now = JSON.parse(JSON.stringify(parsedColumns(message, stored.bcc)));
  const before: Record<string, unknown> = JSON.parse(JSON.stringify(stored.columns));
  const different = Object.keys(now).filter((column) => !isDeepStrictEqual(now[column], before[column]));
  if (different.length > 0) await inTransaction(deps.db, (trx) => rewriteParse(trx, stored.id, message, stored.bcc));
  return different;
}

async function deriveAgain(deps: Deps, ids: readonly ConversationId[]): Promise<void> {
  if (ids.length === 0) return;
  await inTransaction(deps.db, async (trx) => {
    const held = await conversationsHeld(trx, ids);
    const facts = await factsOf(trx, ids);
    await relist(trx, ids);
    await saveDockets(
      trx,
      held.map(({ id, version }) => ({
        id,
        version: version + 1,
        docket: deriveDocket(facts.get(id) ?? NOTHING_HAPPENED),
      })),
    );
  });
}
