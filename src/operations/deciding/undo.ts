import { deriveDocket } from "../../core/docket/derive-docket";
import { effectInWords, type Names } from "../../core/journal/effect-in-words";
import type { JournalEntry } from "../../core/journal/entry";
import { planUndo, type UndoPlan } from "../../core/journal/plan-undo";
import { type BatchId, type ConversationId, type EntryId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { dayInWords } from "../../core/time/day-words";
import { membersOfTray, type Tray, type TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import {
  appendEntries,
  type BatchEntry,
  categoryNames,
  entriesToUndo,
  factsOf,
  type HeldConversation,
  lockCategoriesForShare,
  lockConversations,
  saveDockets,
  type ToUndo,
} from "../../storage/facts/index";
import { takeBackReminders } from "../../storage/mail/index";
import { recordsByIds } from "../../storage/records/index";
import { journalTexts } from "../../texts/en/journal";
import { eachOnce, type Said, saidOf, type Wording } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import { isEmpty } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";
import { isMoving, moveBack } from "./join-conversations";

const said = saidOf(journalTexts);

/** What undoing did: what was taken back, in words, and what was left because somebody decided anew since. */
export type Undone = { readonly count: number; readonly what: Wording; readonly left: readonly Said[] };

/** Takes back what one batch did. */
export function undoBatch(deps: Deps, grant: TrayGrant, batchId: BatchId): Promise<Result<Undone, Refusal>> {
  return undoAtOnce(deps, grant, { batchIds: [batchId] });
}

/** Takes back what was done, whoever did it, where nothing newer contradicts it; all of it or nothing. */
export async function undoAtOnce(deps: Deps, grant: TrayGrant, what: ToUndo): Promise<Result<Undone, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const undone = await inTransaction(
    deps.db,
    async (trx): Promise<Result<{ plans: UndoPlan[]; ids: ConversationId[] }, Refusal>> => {
      await lockCategoriesForShare(trx);
      const before = await entriesToUndo(trx, grant.tray.id, what);
      const own = new Set(before.map((entry) => entry.conversationId));
      const ids = [...new Set([...own, ...before.filter(isMoving).map(({ effect }) => effect.conversationId)])];
      const all = await lockConversations(trx, grant.tray.id, ids);
      const held = all.filter(({ id }) => own.has(id));
      // Read again now that nobody else can undo it at the same time.
      const entries = await entriesToUndo(trx, grant.tray.id, what);
      if (entries.length === 0) return err({ kind: "nothing-to-undo" });
      const plans = await undoEntries(trx, deps, grant, held, entries);
      return ok({ plans, ids });
    },
  );
  if (!undone.ok) return undone;
  for (const conversationId of undone.value.ids) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok(await undoneInWords(deps, grant, undone.value.plans));
}

/** Undoes entries of conversations that are held, and keeps the dockets that are left; also when none of them stands any more. */
export async function undoEntries(
  trx: Transaction,
  deps: Within,
  { tray, memberId: by }: TrayGrant,
  held: readonly HeldConversation[],
  entries: readonly BatchEntry[],
  batchId: BatchId = trustedId<BatchId>(deps.newId()),
): Promise<UndoPlan[]> {
  const facts = await factsOf(
    trx,
    held.map(({ id }) => id),
  );
  const planned = held.map((conversation) => {
    const own = entries.filter((entry) => entry.conversationId === conversation.id);
    const plans = planUndo(own, facts.get(conversation.id)?.entries ?? []);
    return { conversation, plans, taken: plans.flatMap((plan) => (plan.kind === "undo" ? [plan.entry] : [])) };
  });
  const changed = await movedBack(trx, tray, planned, facts);
  const undone = planned.map(({ conversation, plans, taken }) => {
    const known = changed.get(conversation.id) ?? NOTHING_HAPPENED;
    const takenIds = new Set(taken.map((entry) => entry.id));
    const undos = taken.map((entry, at) => ({
      id: trustedId<EntryId>(deps.newId()),
      trayId: conversation.trayId,
      conversationId: conversation.id,
      batchId,
      version: conversation.version + at + 1,
      at: deps.now(),
      by,
      effect: entry.effect,
      undoes: entry.id,
    }));
    const remaining = known.entries.filter((entry) => !takenIds.has(entry.id));
    const left = { ...known, entries: remaining };
    // What has become a part of another conversation keeps the docket that it went with.
    const docket = isEmpty(left) ? null : deriveDocket(left);
    return { id: conversation.id, version: conversation.version + undos.length, docket, undos, plans };
  });
  const dockets = undone.flatMap(({ id, version, docket }) => (docket === null ? [] : [{ id, version, docket }]));
  const undos = undone.flatMap((one) => one.undos);
  const begun = undos.flatMap(({ effect }) => (effect.kind === "reminders-begun" ? [effect.expectationId] : []));
  await Promise.all([appendEntries(trx, undos), saveDockets(trx, dockets), takeBackReminders(trx, begun)]);
  return undone.flatMap(({ plans }) => plans);
}

// What was moved between conversations goes back first: the facts of both are others then.
async function movedBack(
  trx: Transaction,
  tray: Tray,
  planned: readonly { conversation: HeldConversation; taken: readonly JournalEntry[] }[],
  facts: Map<ConversationId, ConversationFacts>,
): Promise<Map<ConversationId, ConversationFacts>> {
  const moving = planned.flatMap(({ conversation, taken }) =>
    taken.filter(isMoving).map((entry) => ({ id: conversation.id, entry })),
  );
  if (moving.length === 0) return facts;
  for (const { id, entry } of moving) await moveBack(trx, tray, id, entry);
  return factsOf(
    trx,
    planned.map(({ conversation }) => conversation.id),
  );
}

async function undoneInWords(deps: Deps, grant: TrayGrant, plans: readonly UndoPlan[]): Promise<Undone> {
  const names = await namesFor(deps, grant, plans);
  const words = (kept: readonly UndoPlan[]) =>
    eachOnce(kept.map((plan) => effectInWords(plan.entry.effect, names, plan.entry.by)));
  const taken = plans.filter((plan) => plan.kind === "undo");
  return {
    count: taken.length,
    what: { all: words(taken.toReversed()), by: "and" },
    left: words(plans.filter((plan) => plan.kind !== "undo")),
  };
}

/** What things are called in sentences about these entries. */
export async function namesFor(
  deps: Deps,
  grant: TrayGrant,
  plans: readonly { readonly entry: Pick<JournalEntry, "effect"> }[],
): Promise<Names> {
  const categoryIds = plans.flatMap(({ entry }) => ("categoryId" in entry.effect ? [entry.effect.categoryId] : []));
  const recordIds = plans.flatMap(({ entry }) => ("recordId" in entry.effect ? [entry.effect.recordId] : []));
  const [members, categories, records] = await Promise.all([
    membersOfTray(deps.db, grant.tray.id),
    categoryNames(deps.db, categoryIds),
    recordsByIds(deps.db, grant, recordIds),
  ]);
  return {
    member: (id) =>
      id === grant.memberId
        ? said("journal.you")
        : (members.find((member) => member.id === id)?.name ?? said("journal.aColleague")),
    category: (id) => categories.get(id) ?? said("journal.aCategory"),
    record: (id) => records.find((record) => record.id === id)?.code ?? said("journal.aRecord"),
    day: (at) => dayInWords(at, deps.now(), grant.tray.timeZone),
  };
}
