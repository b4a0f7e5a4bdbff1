import { type ConversationId, type DraftId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Draft } from "../../core/writing/draft";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";

export type SharedDraft = {
  readonly id: DraftId;
  readonly conversationId: ConversationId;
  readonly version: number;
  readonly content: Draft;
  readonly writtenBy: MemberId;
  /** Whose move it is. */
  readonly holderId: MemberId;
  readonly state: "to-check" | "returned";
  readonly note: string;
  readonly updatedAt: Instant;
};

const OPEN = ["to-check", "returned"];

/** The drafts of a conversation and of what became a part of it that are neither sent nor given up, the oldest first. */
export async function draftsOf(db: Database, grant: TrayGrant, conversationId: ConversationId): Promise<SharedDraft[]> {
  const rows = await knexOf(db)("draft")
    .where("tray_id", grant.tray.id)
    .where((of) =>
      of
        .where("conversation_id", conversationId)
        .orWhereIn("conversation_id", knexOf(db)("conversation").select("id").where("joined_to", conversationId)),
    )
    .whereIn("state", OPEN)
    .orderBy("id");
  return rows.map(draftOf);
}

function draftOf(row: Record<string, never>): SharedDraft {
  return {
    id: trustedId<DraftId>(row.id ?? ""),
    conversationId: trustedId<ConversationId>(row.conversation_id ?? ""),
    version: Number(row.version),
    content: row.content as unknown as Draft,
    writtenBy: trustedId<MemberId>(row.written_by ?? ""),
    holderId: trustedId<MemberId>(row.holder_id ?? ""),
    state: row.state as unknown as SharedDraft["state"],
    note: row.note ?? "",
    updatedAt: at(row.updated_at as unknown as Date),
  };
}

/** Keeps a new draft, or shares one that its writer had to herself. */
export async function addDraft(trx: Transaction, grant: TrayGrant, draft: SharedDraft): Promise<void> {
  const changing = changingColumns(draft);
  await knexOf(trx)("draft")
    .insert({
      id: draft.id,
      tray_id: grant.tray.id,
      conversation_id: draft.conversationId,
      version: draft.version,
      written_by: draft.writtenBy,
      ...changing,
    })
    .onConflict("id")
    .merge({ ...changing, version: knexOf(trx).raw("draft.version + 1") })
    .where({ "draft.tray_id": grant.tray.id, "draft.written_by": draft.writtenBy, "draft.state": "own" });
}

function changingColumns({ content, holderId, state, note, updatedAt }: Omit<SharedDraft, "id">) {
  return {
    content: JSON.stringify(content),
    holder_id: holderId,
    state,
    note,
    updated_at: param(updatedAt),
  };
}

/** Changes a draft that is as it was read; false when somebody changed or ended it since. */
export async function changeDraft(trx: Transaction, grant: TrayGrant, draft: SharedDraft): Promise<boolean> {
  const changed = await knexOf(trx)("draft")
    .where({ id: draft.id, tray_id: grant.tray.id, version: draft.version })
    .whereIn("state", OPEN)
    .update({ ...changingColumns(draft), version: draft.version + 1 });
  return changed === 1;
}

/** Ends a draft: it went, or was given up; false when it had ended, or is another version by now. */
export async function endDraft(
  trx: Transaction,
  grant: TrayGrant,
  draft: Pick<SharedDraft, "id" | "version">,
  as: "sent" | "given-up",
  now: Instant,
): Promise<boolean> {
  const ended = await knexOf(trx)("draft")
    .where({ id: draft.id, tray_id: grant.tray.id, version: draft.version })
    .whereIn("state", OPEN)
    .update({ state: as, updated_at: param(now), version: draft.version + 1 });
  return ended === 1;
}

/** Passes the drafts that wait for a member on to another one, for whom they are to check now. */
export async function passDraftsOn(trx: Transaction, from: MemberId, to: MemberId): Promise<void> {
  await knexOf(trx)("draft")
    .where({ holder_id: from })
    .whereIn("state", OPEN)
    .update({ holder_id: to, state: "to-check", version: knexOf(trx).raw("version + 1") });
}
