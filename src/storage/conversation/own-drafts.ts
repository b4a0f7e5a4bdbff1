import { type ConversationId, type DraftId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { Draft } from "../../core/writing/draft";
import type { TrayGrant } from "../access/trays";
import type { Database, Transaction } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { at, param } from "../base/rows";
import type { SharedDraft } from "./shared-drafts";

/** A draft that nobody but its writer writes on. */
export type OwnDraft = {
  readonly id: DraftId;
  /** What it answers or passes on; null for a first message. */
  readonly conversationId: ConversationId | null;
  readonly version: number;
  readonly content: Draft;
  readonly state: "own" | "given-up";
  readonly updatedAt: Instant;
};

type Row = {
  readonly id: string;
  readonly conversation_id: string | null;
  readonly version: number;
  readonly content: Draft;
  readonly state: OwnDraft["state"];
  readonly updated_at: Date;
};

const COLUMNS = ["id", "conversation_id", "version", "content", "state", "updated_at"].map((name) => `draft.${name}`);

function ownDraftOf(row: Row): OwnDraft {
  return {
    id: trustedId<DraftId>(row.id),
    conversationId: row.conversation_id === null ? null : trustedId<ConversationId>(row.conversation_id),
    version: row.version,
    content: row.content,
    state: row.state,
    updatedAt: at(row.updated_at),
  };
}

const ofWriter = (db: Database, { tray, memberId }: TrayGrant) =>
  knexOf(db)("draft").where({ "draft.tray_id": tray.id, written_by: memberId });

/**
 * Keeps a draft of one's own, a new one by version 0: as its next version, or not where it is another version by now or has
 * ended. Its version then; null where it was not kept.
 */
export async function keepOwnDraft(
  db: Database,
  grant: TrayGrant,
  { id, conversationId, version, content }: Pick<OwnDraft, "id" | "conversationId" | "version" | "content">,
  now: Instant,
): Promise<number | null> {
  if (version === 0) {
    return (await addOwnDraft(db, grant, { id, conversationId, content, state: "own" }, now)) ? 1 : null;
  }
  const kept = await ofWriter(db, grant)
    .where({ id, version, state: "own" })
    .update({ content: JSON.stringify(content), updated_at: param(now), version: version + 1 });
  return kept === 1 ? version + 1 : null;
}

/** A draft of one's own by its id; null where there is none that is neither sent nor handed over. */
export async function ownDraft(db: Database, grant: TrayGrant, id: DraftId): Promise<OwnDraft | null> {
  const row: Row | undefined = await ofWriter(db, grant)
    .where("draft.id", id)
    .whereIn("state", ["own", "given-up"])
    .first(...COLUMNS);
  return row === undefined ? null : ownDraftOf(row);
}

/** The drafts of one's own in a conversation and in what became a part of it, the newest first. */
export async function ownDraftsIn(db: Database, grant: TrayGrant, conversationId: ConversationId): Promise<OwnDraft[]> {
  const rows: Row[] = await ofWriter(db, grant)
    .where("state", "own")
    .where((of) =>
      of
        .where("conversation_id", conversationId)
        .orWhereIn("conversation_id", knexOf(db)("conversation").select("id").where("joined_to", conversationId)),
    )
    .select(...COLUMNS)
    .orderBy("updated_at", "desc");
  return rows.map(ownDraftOf);
}

/** A draft as a list of a member shows it, with the conversation that it belongs to. */
export type ListedDraft = Omit<OwnDraft, "state"> & {
  readonly state: OwnDraft["state"] | SharedDraft["state"];
  readonly writtenBy: MemberId;
  readonly holderId: MemberId;
  readonly conversation: { readonly subject: string; readonly standing: string } | null;
};

/**
 * The drafts of a member in a tray, the newest first: what she writes on, what she handed over or was handed, and what she
 * threw away since a moment.
 */
export async function draftsOfMember(
  db: Database,
  { tray, memberId }: TrayGrant,
  thrownAwaySince: Instant,
  limit: number,
): Promise<ListedDraft[]> {
  type Listed = Omit<Row, "state"> & Pick<ListedDraft, "state"> & { written_by: string; holder_id: string };
  const rows: (Listed & { subject: string | null; standing: string | null })[] = await knexOf(db)("draft")
    .leftJoin("conversation as told", "told.id", "draft.conversation_id")
    // What became a part of another conversation is found there.
    .leftJoin("conversation", (on) => on.on("conversation.id", knexOf(db).raw("coalesce(told.joined_to, told.id)")))
    .where("draft.tray_id", tray.id)
    .where((of) =>
      of
        .where({ "draft.written_by": memberId, "draft.state": "own" })
        .orWhere((thrown) =>
          thrown
            .where({ "draft.written_by": memberId, "draft.state": "given-up" })
            .where("draft.updated_at", ">", param(thrownAwaySince) as Date),
        )
        .orWhere((shared) =>
          shared
            .whereIn("draft.state", ["to-check", "returned"])
            .where((whose) => whose.where("draft.written_by", memberId).orWhere("draft.holder_id", memberId)),
        ),
    )
    .select(...COLUMNS, "draft.written_by", "draft.holder_id", "conversation.subject", "conversation.standing")
    .select("conversation.id as conversation_id")
    .orderBy("draft.updated_at", "desc")
    .limit(limit);
  return rows.map(({ subject, standing, state, written_by, holder_id, ...row }) => ({
    ...ownDraftOf({ ...row, state: "own" }),
    state,
    writtenBy: trustedId<MemberId>(written_by),
    holderId: trustedId<MemberId>(holder_id),
    conversation: subject === null || standing === null ? null : { subject, standing },
  }));
}

/** Throws a draft of one's own away, or takes it up again: whether there was one that was otherwise. */
export async function setOwnDraft(
  db: Database,
  grant: TrayGrant,
  id: DraftId,
  state: OwnDraft["state"],
  now: Instant,
): Promise<boolean> {
  const changed = await ofWriter(db, grant)
    .where({ id, state: state === "own" ? "given-up" : "own" })
    .update({ state, updated_at: param(now), version: knexOf(db).raw("version + 1") });
  return changed === 1;
}

/** Ends a draft of one's own that has gone; also one that is still on its way here, which then comes too late. */
export async function endOwnDraft(trx: Transaction, grant: TrayGrant, id: DraftId, now: Instant): Promise<void> {
  const ended = await ofWriter(trx, grant)
    .where({ id })
    .update({ state: "sent", updated_at: param(now) });
  if (ended === 0) await addOwnDraft(trx, grant, { id, conversationId: null, content: {}, state: "sent" }, now);
}

/** Keeps a draft of one's own as a letter that goes by itself: whether it is hers, and neither sent nor handed over. */
export async function planDraft(
  trx: Transaction,
  grant: TrayGrant,
  { id, conversationId, content }: Pick<OwnDraft, "id" | "conversationId" | "content">,
  now: Instant,
): Promise<boolean> {
  await addOwnDraft(trx, grant, { id, conversationId, content, state: "own" }, now);
  const planned = await ofWriter(trx, grant)
    .where({ id })
    .whereIn("state", ["own", "given-up"])
    .update({
      ...{ content: JSON.stringify(content), state: "later", updated_at: param(now) },
      version: knexOf(trx).raw("version + 1"),
    });
  return planned === 1;
}

/** Makes a letter that was to go by itself a draft again, to be written on or thrown away. */
export async function unplanDraft(
  trx: Transaction,
  id: DraftId,
  state: OwnDraft["state"],
  now: Instant,
): Promise<void> {
  await knexOf(trx)("draft")
    .where({ id, state: "later" })
    .update({ state, updated_at: param(now), version: knexOf(trx).raw("version + 1") });
}

async function addOwnDraft(
  db: Database,
  { tray, memberId }: TrayGrant,
  draft: {
    readonly id: DraftId;
    readonly conversationId: ConversationId | null;
    readonly content: Draft | Record<string, never>;
    readonly state: "own" | "sent";
  },
  now: Instant,
): Promise<boolean> {
  const added = await knexOf(db)("draft")
    .insert({
      id: draft.id,
      tray_id: tray.id,
      conversation_id: draft.conversationId,
      version: 1,
      content: JSON.stringify(draft.content),
      written_by: memberId,
      holder_id: memberId,
      state: draft.state,
      note: "",
      updated_at: param(now),
    })
    .onConflict("id")
    .ignore()
    .returning("version");
  return added.length === 1;
}
