import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect, JournalEntry } from "../../core/journal/entry";
import {
  type BatchId,
  type ConversationId,
  type EntryId,
  type MemberId,
  type MessageId,
  trustedId,
} from "../../core/kernel/ids";
import { dateOf } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { baseSubject } from "../../core/threading/base-subject";
import { branchOf } from "../../core/threading/branch-of";
import type { Tray, TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { conversationRow, correspondenceOf } from "../../storage/conversation/index";
import {
  appendEntries,
  closeJoined,
  factsOf,
  lockConversations,
  moveFacts,
  type Place,
  type Places,
  placesIn,
  relist,
  reopenJoined,
  saveDockets,
  startEmpty,
} from "../../storage/facts/index";
import type { Deps, Within } from "../base/deps";
import type { Done } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";

/** Puts a conversation into another one of the tray: its messages, notes and journal follow there, and it is no more by itself. */
export async function joinConversations(
  deps: Deps,
  grant: TrayGrant,
  target: ConversationId,
  source: ConversationId,
): Promise<Result<Done, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  if (target === source) return err({ kind: "same-conversation" });
  const batchId = trustedId<BatchId>(deps.newId());
  const done = await inTransaction(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const row = await conversationRow(trx, grant, source);
    const held = await lockConversations(trx, grant.tray.id, [target, source]);
    const places = [await placesIn(trx, target), await placesIn(trx, source)];
    // What is a part of another conversation already is joined there.
    const isGone = places.some(({ messages }) => messages.length === 0);
    if (row === null || held.length < 2 || isGone) return err({ kind: "no-such-conversation" });
    await joinPiece(trx, deps, grant.tray, { target, source, subject: row.subject, by: grant.memberId, batchId });
    return ok(null);
  });
  if (!done.ok) return done;
  for (const conversationId of [target, source]) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok({ batchId, count: 1 });
}

type Joining = {
  readonly target: ConversationId;
  readonly source: ConversationId;
  readonly subject: string;
  readonly by: MemberId | null;
  readonly batchId: BatchId;
};

/** The same within the caller's transaction, which need not hold the two; a late parent joins pieces so. */
export async function joinPiece(trx: Transaction, deps: Within, tray: Tray, joining: Joining): Promise<void> {
  const { target, source } = joining;
  const held = await lockConversations(trx, tray.id, [target, source]);
  const before = held.find(({ id }) => id === target)?.version ?? 0;
  const places = await placesIn(trx, source);
  const { moved, last } = placedAfter(places, before);
  await moveFacts(trx, tray.id, source, target, moved);
  const effect: Effect = { kind: "joined", conversationId: source, subject: joining.subject, ...places };
  await appendOwn(trx, deps, tray, { ...joining, conversationId: target, version: last + 1, effect });
  await closeJoined(trx, source, target);
  await relist(trx, [target]);
  await saveDerived(trx, [{ id: target, version: last + 1 }]);
}

// In their order, behind everything that is there: what a conversation learns later happens later.
function placedAfter(places: Places, version: number): { moved: Places; last: number } {
  const order = [...places.messages, ...places.entries].toSorted((a, b) => a.version - b.version);
  const versions = new Map<string, number>(order.map(({ id }, at) => [id, version + at + 1]));
  const placed = <Id extends string>(some: readonly Place<Id>[]) =>
    some.map(({ id }) => ({ id, version: versions.get(id) ?? version }));
  return {
    moved: { messages: placed(places.messages), entries: placed(places.entries) },
    last: version + order.length,
  };
}

/** Makes a message, with the answers that hang on it, a conversation of its own. */
export async function splitOff(
  deps: Deps,
  grant: TrayGrant,
  id: ConversationId,
  messageId: MessageId,
): Promise<Result<Done & { readonly conversationId: ConversationId }, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const batchId = trustedId<BatchId>(deps.newId());
  const newId = trustedId<ConversationId>(deps.newId());
  const done = await inTransaction(deps.db, async (trx): Promise<Result<null, Refusal>> => {
    const [held] = await lockConversations(trx, grant.tray.id, [id]);
    const messages = held === undefined ? [] : await correspondenceOf(trx, grant, id);
    const root = messages.find((message) => message.id === messageId);
    if (held === undefined || root === undefined) return err({ kind: "no-such-conversation" });
    const branch = new Set(branchOf(messages, root).map((message) => message.id));
    if (branch.size === messages.length) return err({ kind: "nothing-would-stay" });
    const all = await placesIn(trx, id);
    const places: Places = { messages: all.messages.filter((place) => branch.has(place.id)), entries: [] };
    const subject = { subject: root.subject, baseSubject: baseSubject(root.subject).base };
    await startEmpty(trx, grant.tray.id, newId, subject, dateOf(deps.now()));
    const { moved, last } = placedAfter(places, 0);
    await moveFacts(trx, grant.tray.id, id, newId, moved);
    const effect: Effect = {
      kind: "split-off",
      conversationId: newId,
      subject: root.subject,
      messages: places.messages,
    };
    const version = held.version + 1;
    await appendOwn(trx, deps, grant.tray, { conversationId: id, version, effect, by: grant.memberId, batchId });
    await relist(trx, [id, newId]);
    await saveDerived(trx, [
      { id, version },
      { id: newId, version: last },
    ]);
    return ok(null);
  });
  if (!done.ok) return done;
  for (const conversationId of [id, newId]) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok({ batchId, count: 1, conversationId: newId });
}

/** An entry that moved messages between conversations. */
export type Moving = JournalEntry & { readonly effect: Extract<Effect, { kind: "joined" | "split-off" }> };

export function isMoving<Entry extends JournalEntry>(entry: Entry): entry is Entry & Moving {
  return entry.effect.kind === "joined" || entry.effect.kind === "split-off";
}

/**
 * Puts what an entry of a conversation moved back where it was, as far as it is still there; gives the other conversation,
 * as it stands now. Both have to be held; the docket of the one that the entry is in is for the caller to keep.
 */
export async function moveBack(trx: Transaction, tray: Tray, id: ConversationId, { effect }: Moving): Promise<void> {
  const other = effect.conversationId;
  await lockConversations(trx, tray.id, [id, other]);
  if (effect.kind === "joined") {
    await reopenJoined(trx, other);
    await moveFacts(trx, tray.id, id, other, effect);
    await relist(trx, [id, other]);
    const last = Math.max(0, ...[...effect.messages, ...effect.entries].map((place) => place.version));
    await saveDerived(trx, [{ id: other, version: last + 1 }]);
    return;
  }
  await moveFacts(trx, tray.id, other, id, { messages: effect.messages, entries: [] });
  const left = await placesIn(trx, other);
  await relist(trx, [id, other]);
  if (left.messages.length === 0) {
    await closeJoined(trx, other, id);
    return;
  }
  const version = Math.max(...[...left.messages, ...left.entries].map((place) => place.version));
  await saveDerived(trx, [{ id: other, version: version + 1 }]);
}

async function appendOwn(
  trx: Transaction,
  deps: Within,
  tray: Tray,
  entry: { conversationId: ConversationId; version: number; effect: Effect; by: MemberId | null; batchId: BatchId },
): Promise<void> {
  const { conversationId, version, effect, by, batchId } = entry;
  const id = trustedId<EntryId>(deps.newId());
  await appendEntries(trx, [{ id, trayId: tray.id, conversationId, version, at: deps.now(), by, batchId, effect }]);
}

async function saveDerived(trx: Transaction, kept: readonly { id: ConversationId; version: number }[]): Promise<void> {
  const facts = await factsOf(
    trx,
    kept.map(({ id }) => id),
  );
  await saveDockets(
    trx,
    kept.map(({ id, version }) => ({
      id,
      version,
      docket: deriveDocket(facts.get(id) ?? NOTHING_HAPPENED),
    })),
  );
}
