import { settlesUnfiled } from "../../core/deciding/plan-decision";
import { deriveDocket } from "../../core/docket/derive-docket";
import { effectInWords } from "../../core/journal/effect-in-words";
import type { Effect, JournalEntry } from "../../core/journal/entry";
import { overwrittenUnseen } from "../../core/journal/plan-undo";
import type { RuleMark } from "../../core/journal/rule-mark";
import { type BatchId, type ConversationId, type EntryId, type MemberId, trustedId } from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import type { ConversationFacts } from "../../core/standing/derive-standing";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import { filesBeforeSettling, membersOfTray, type TrayGrant } from "../../storage/access/index";
import { inTransaction, type Transaction } from "../../storage/base/index";
import {
  appendEntries,
  factsOf,
  type HeldConversation,
  lockConversations,
  type NewEntry,
  saveDocketsAfter,
} from "../../storage/facts/index";
import { journalTexts } from "../../texts/en/journal";
import { saidOf } from "../../texts/said";
import type { Deps, Within } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { beginReminders } from "./begin-reminders";
import { notifyOfEntries } from "./notify";

const said = saidOf(journalTexts);

/** What was done: the batch to undo it by, and how many conversations it changed. */
export type Done = { readonly batchId: BatchId; readonly count: number };

/** Which conversations, and the version that the decider saw of a single one; null where nothing can be overwritten. */
export type Target = { readonly ids: readonly ConversationId[]; readonly seenVersion: number | null };

/**
 * Carries out a decision on conversations of one tray: the effects that `plan` gives for each go into the journal as one
 * batch, and the dockets they lead to are kept with them. A plan without effects leaves its conversation alone. `guard`
 * says, before anything is held, why nothing may be done.
 */
export async function changeConversations(
  deps: Deps,
  grant: TrayGrant,
  target: Target,
  plan: (facts: ConversationFacts) => readonly Effect[],
  guard: (trx: Transaction) => Promise<Refusal | null> = async () => null,
): Promise<Result<Done, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const batchId = trustedId<BatchId>(deps.newId());
  const done = await inTransaction(deps.db, async (trx): Promise<Result<ConversationId[], Refusal>> => {
    const refusal = await guard(trx);
    if (refusal !== null) return err(refusal);
    const held = await lockConversations(trx, grant.tray.id, target.ids);
    if (held.length < new Set(target.ids).size) return err({ kind: "no-such-conversation" });
    const facts = await factsOf(trx, target.ids);
    // What became a part of another conversation is decided there.
    if (held.some(({ id }) => isEmpty(facts.get(id)))) return err({ kind: "no-such-conversation" });
    const changes = held.map((conversation) => {
      const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
      return { conversation, known, effects: plan(known) };
    });
    for (const change of changes) {
      const refusal = await staleDecision(trx, grant, target.seenVersion, change);
      if (refusal !== null) return err(refusal);
    }
    if ((await notToSettle(trx, grant, changes)).length > 0) return err({ kind: "file-first" });
    await carryOut(trx, deps, grant.memberId, batchId, changes);
    return ok(changes.filter((change) => change.effects.length > 0).map((change) => change.conversation.id));
  });
  if (!done.ok) return done;
  for (const conversationId of done.value) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return ok({ batchId, count: done.value.length });
}

/** Whether nothing is in a conversation any more: all of it is a part of another one. */
export function isEmpty(facts: ConversationFacts | undefined): boolean {
  return facts === undefined || facts.messages.length + facts.entries.length === 0;
}

/** What is done to one conversation that is held. */
export type ChangePlan = {
  readonly conversation: HeldConversation;
  readonly known: ConversationFacts;
  readonly effects: readonly Effect[];
  /** The rule that does it, where one does. */
  readonly rule?: RuleMark;
};

/** A conversation that is held, and everything that is known of it. */
export type ConversationInHand = Pick<ChangePlan, "conversation" | "known">;

/** Writes effects into the journal and keeps the dockets that they lead to; gives what changed as it is then. */
export async function carryOut(
  trx: Transaction,
  deps: Within,
  by: MemberId | null,
  batchId: BatchId,
  changes: readonly ChangePlan[],
): Promise<ConversationInHand[]> {
  const changed = changes.filter((change) => change.effects.length > 0);
  const withEntries = changed.map(({ conversation, known, effects, rule }) => {
    const entries = effects.map(
      (effect, at): NewEntry => ({
        id: trustedId<EntryId>(deps.newId()),
        trayId: conversation.trayId,
        conversationId: conversation.id,
        batchId,
        version: conversation.version + at + 1,
        at: deps.now(),
        by,
        ...(rule === undefined ? {} : { rule }),
        effect,
      }),
    );
    const after = { ...known, entries: [...known.entries, ...entries] };
    const version = conversation.version + effects.length;
    const inHand: ConversationInHand = { conversation: { ...conversation, version }, known: after };
    return { id: conversation.id, version, docket: deriveDocket(after), entries, inHand };
  });
  const written = withEntries.flatMap(({ entries }) => entries);
  const kinds = written.map(({ effect }) => effect.kind);
  await Promise.all([
    appendEntries(trx, written),
    saveDocketsAfter(trx, withEntries, kinds),
    notifyOfEntries(trx, deps, written),
    beginReminders(
      trx,
      deps,
      withEntries.flatMap(({ entries, inHand }) => entries.map((entry) => ({ entry, known: inHand.known }))),
    ),
  ]);
  return withEntries.map(({ inHand }) => inHand);
}

/** Of some changes those that would settle what is filed nowhere, in a tray that settles only what is filed. */
export async function notToSettle<Change extends Pick<ChangePlan, "known" | "effects">>(
  trx: Transaction,
  { tray }: TrayGrant,
  changes: readonly Change[],
): Promise<Change[]> {
  const settling = changes.filter(({ known, effects }) => settlesUnfiled(effects, known));
  return settling.length > 0 && (await filesBeforeSettling(trx, tray)) ? settling : [];
}

// A decision made on a page that is no longer true: nobody's decision is overwritten unseen, and nothing is put away
// with a message in it that nobody read.
async function staleDecision(
  trx: Transaction,
  grant: TrayGrant,
  seenVersion: number | null,
  { known, effects }: ChangePlan,
): Promise<Refusal | null> {
  if (seenVersion === null) return null;
  for (const effect of effects) {
    const entry = overwrittenUnseen({ effect }, seenVersion, grant.memberId, known.entries);
    if (entry !== null) return overtaken(trx, grant, entry);
  }
  const putsAway = effects.some(({ kind }) => kind === "settled" || kind === "binned" || kind === "rested");
  const unread = known.messages.findLast(({ version, direction }) => version > seenVersion && direction === "in");
  return putsAway && unread !== undefined ? { kind: "new-message", who: unread.fromName || unread.from } : null;
}

async function overtaken(trx: Transaction, grant: TrayGrant, entry: JournalEntry): Promise<Refusal> {
  const members = await membersOfTray(trx, grant.tray.id);
  const nameOf = (id: MemberId) => members.find((member) => member.id === id)?.name ?? said("journal.aColleague");
  const names = {
    member: (id: MemberId) => (id === grant.memberId ? said("journal.you") : nameOf(id)),
    category: () => said("journal.aCategory"),
    record: () => said("journal.aRecord"),
    day: () => said("journal.aDayToCome"),
  };
  const did = effectInWords(entry.effect, names, entry.by);
  return { kind: "overtaken", who: entry.by === null ? said("journal.theTray") : nameOf(entry.by), did };
}
