import { deriveDocket } from "../../core/docket/derive-docket";
import type { Effect } from "../../core/journal/entry";
import { type BatchId, type MemberId, type RecordId, trustedId } from "../../core/kernel/ids";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { inTransaction, type Transaction } from "../../storage/base/index";
import { conversationsHeld, factsOf, type HeldConversation } from "../../storage/facts/index";
import {
  addCertificate,
  type BegunDisposal,
  begunDisposals,
  type Certificate,
  certificateById,
  deleteFiled,
  deleteRecord,
  endDisposalItems,
  lockDisposalItems,
  lockWhatWent,
  noteGone,
} from "../../storage/records/index";
import type { Deps, Within } from "../base/deps";
import { carryOut } from "../changes/change-conversations";

// So many go in one transaction: what they hold is held for less than a tenth of a second.
const SLICE = 8;
// Another process may have the last of them in hand.
const LOOKED_AGAIN_MS = 50;

/** Carries a disposal that has begun out, in slices, and gives its certificate. Cut off, it is gone on with by the clock. */
export async function carryOutDisposal(deps: Deps, disposal: BegunDisposal): Promise<Certificate> {
  for (;;) {
    while ((await disposeOfSlice(deps, disposal)) > 0);
    const certificate = (await endDisposal(deps, disposal)) ?? (await certificateById(deps.db, disposal.head.id));
    if (certificate !== null) return certificate;
    await deps.pause(LOOKED_AGAIN_MS);
  }
}

/** Goes on with what a process that died has begun. */
export async function goOnDisposing(deps: Deps): Promise<void> {
  for (const disposal of await begunDisposals(deps.db)) await carryOutDisposal(deps, disposal);
}

async function disposeOfSlice(deps: Deps, { recordId, byMemberId }: BegunDisposal): Promise<number> {
  const done = await inTransaction(deps.db, async (trx) => {
    const items = await lockDisposalItems(trx, recordId, SLICE);
    const ids = items.map(({ id }) => id);
    const held = await conversationsHeld(trx, ids);
    // What was written in since it was shown is kept: mail that nobody has seen goes with no record.
    const asShown = new Map(items.flatMap(({ id, version, goes }) => (goes ? [[id, version] as const] : [])));
    const goes = held.filter(({ id, version }) => asShown.get(id) === version);
    const gone = goes.map(({ id }) => id);
    const stays = held.filter((one) => !goes.includes(one));
    await takeOff(trx, deps, byMemberId, recordId, stays);
    await noteGone(trx, recordId, gone);
    await deleteFiled(trx, goes, deps.now());
    await endDisposalItems(trx, recordId, ids, gone);
    return { count: items.length, held };
  });
  for (const { id, trayId } of done.held) deps.publishChange({ trayId, conversationId: id });
  return done.count;
}

async function takeOff(
  trx: Transaction,
  deps: Within,
  by: MemberId | null,
  recordId: RecordId,
  held: readonly HeldConversation[],
): Promise<void> {
  if (held.length === 0) return;
  const facts = await factsOf(
    trx,
    held.map(({ id }) => id),
  );
  const changes = held.map((conversation) => {
    const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
    const { recordIds, filedParts } = deriveDocket(known);
    const whole: Effect[] = recordIds.includes(recordId) ? [{ kind: "unfiled", recordId }] : [];
    const parts = filedParts.flatMap(({ messageId, attachment, ...part }): Effect[] =>
      part.recordId === recordId ? [{ kind: "part-unfiled", recordId, messageId, attachment }] : [],
    );
    return { conversation, known, effects: [...whole, ...parts] };
  });
  await carryOut(trx, deps, by, trustedId<BatchId>(deps.newId()), changes);
}

async function endDisposal(deps: Deps, { recordId, head, viewers }: BegunDisposal): Promise<Certificate | null> {
  return inTransaction(deps.db, async (trx) => {
    const went = await lockWhatWent(trx, recordId);
    if (went === null) return null;
    const certificate = { ...head, at: deps.now(), ...went };
    await deleteRecord(trx, recordId, deps.now());
    await addCertificate(trx, certificate, viewers);
    return certificate;
  });
}
