import type { Effect } from "../../core/journal/entry";
import {
  type BatchId,
  type ConversationId,
  type DraftAttachmentId,
  type DraftId,
  type MemberId,
  trustedId,
} from "../../core/kernel/ids";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { Draft } from "../../core/writing/draft";
import { membersWithRoles, type TrayGrant } from "../../storage/access/index";
import { inTransactionUnlessRefused, type Transaction } from "../../storage/base/index";
import { addDraft, changeDraft, draftsOf, endDraft, type SharedDraft } from "../../storage/conversation/index";
import { factsOf, lockConversations } from "../../storage/facts/index";
import { sizeOfDraftAttachments } from "../../storage/mail/index";
import type { Deps } from "../base/deps";
import { carryOut } from "../changes/change-conversations";
import type { Refusal } from "../refusals/refusal";

/** A draft as a page had it. */
export type SeenDraft = { readonly id: DraftId; readonly version: number };

/** Gives a draft to a colleague to check and send: a new one, or one that goes on as it is now. */
export async function handDraft(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId,
  given: {
    readonly content: Draft;
    readonly to: MemberId;
    readonly note: string;
    /** Null for a new one. */
    readonly seen: SeenDraft | null;
    /** The draft of one's own that becomes the new one; left out where there is none. */
    readonly ownDraft?: DraftId | null;
  },
): Promise<Result<DraftId, Refusal>> {
  const id = given.seen?.id ?? given.ownDraft ?? trustedId<DraftId>(deps.newId());
  return inDraft(deps, grant, conversationId, async (trx) => {
    const refusal = await holderRefusal(trx, grant, given.to);
    if (refusal !== null) return err(refusal);
    const { content, to, note, seen } = given;
    const files = (content.enclosures ?? []).map((file) => trustedId<DraftAttachmentId>(file.id));
    if ((await sizeOfDraftAttachments(trx, grant, files)) === null) return err({ kind: "attachment-gone" });
    const changing = { content, holderId: to, state: "to-check", note, updatedAt: deps.now() } as const;
    if (seen === null) {
      await addDraft(trx, grant, { id, conversationId, version: 1, writtenBy: grant.memberId, ...changing });
    } else {
      const known = await draftSeen(trx, grant, conversationId, seen);
      if (known === null || !(await changeDraft(trx, grant, { ...known, ...changing }))) {
        return err({ kind: "draft-changed" });
      }
    }
    return ok({ value: id, effect: { kind: "draft-handed", draftId: id, to, note } });
  });
}

/** Gives a draft back to whoever wrote it, with a word why. */
export async function returnDraft(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId,
  seen: SeenDraft,
  note: string,
): Promise<Result<DraftId, Refusal>> {
  return inDraft(deps, grant, conversationId, async (trx) => {
    const known = await draftSeen(trx, grant, conversationId, seen);
    if (known === null) return err({ kind: "draft-changed" });
    const to = known.writtenBy;
    const refusal = await holderRefusal(trx, grant, to);
    if (refusal !== null) return err(refusal);
    const returned = { ...known, holderId: to, state: "returned", note, updatedAt: deps.now() } as const;
    if (!(await changeDraft(trx, grant, returned))) return err({ kind: "draft-changed" });
    return ok({ value: seen.id, effect: { kind: "draft-returned", draftId: seen.id, to, note } });
  });
}

/** Gives a draft up; what it said stays in the store, and is shown no more. */
export async function giveUpDraft(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId,
  seen: SeenDraft,
): Promise<Result<DraftId, Refusal>> {
  return inDraft(deps, grant, conversationId, async (trx) => {
    if (!(await endDraft(trx, grant, seen, "given-up", deps.now()))) return err({ kind: "draft-changed" });
    return ok({ value: seen.id, effect: { kind: "draft-given-up", draftId: seen.id } });
  });
}

type Written = { readonly value: DraftId; readonly effect: Effect };

// What becomes of a draft stands in the journal of its conversation, with it or not at all.
async function inDraft(
  deps: Deps,
  grant: TrayGrant,
  conversationId: ConversationId,
  work: (trx: Transaction) => Promise<Result<Written, Refusal>>,
): Promise<Result<DraftId, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const done = await inTransactionUnlessRefused(deps.db, async (trx): Promise<Result<DraftId, Refusal>> => {
    const [held] = await lockConversations(trx, grant.tray.id, [conversationId]);
    if (held === undefined) return err({ kind: "no-such-conversation" });
    const written = await work(trx);
    if (!written.ok) return written;
    const known = (await factsOf(trx, [conversationId])).get(conversationId) ?? NOTHING_HAPPENED;
    const batchId = trustedId<BatchId>(deps.newId());
    const changes = [{ conversation: held, known, effects: [written.value.effect] }];
    await carryOut(trx, deps, grant.memberId, batchId, changes);
    return ok(written.value.value);
  });
  if (done.ok) deps.publishChange({ trayId: grant.tray.id, conversationId });
  return done;
}

async function draftSeen(
  trx: Transaction,
  grant: TrayGrant,
  conversationId: ConversationId,
  { id, version }: SeenDraft,
): Promise<SharedDraft | null> {
  const drafts = await draftsOf(trx, grant, conversationId);
  return drafts.find((draft) => draft.id === id && draft.version === version) ?? null;
}

async function holderRefusal(trx: Transaction, grant: TrayGrant, memberId: MemberId): Promise<Refusal | null> {
  const holder = (await membersWithRoles(trx, grant.tray.id)).find(({ id }) => id === memberId);
  if (holder === undefined) return { kind: "no-such", what: "member" };
  return holder.role === "reader" ? { kind: "only-reads", name: holder.name } : null;
}
