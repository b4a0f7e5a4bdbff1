import { type ConversationId, type MemberId, trustedId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import type { TrayGrant } from "../access/trays";
import { ask } from "../base/ask";
import type { Database } from "../base/handle";
import { knexOf } from "../base/knex-of";
import { param } from "../base/rows";

export type Doing = "looking" | "writing";
/** A colleague who has a conversation open. */
export type Present = { readonly memberId: MemberId; readonly doing: Doing };

/** Notes what a page of a member shows; a page shows one conversation at a time. False when it is in none of this tray. */
export async function savePresence(
  db: Database,
  grant: TrayGrant,
  page: { readonly pageId: string; readonly conversationId: ConversationId; readonly doing: Doing },
  now: Instant,
): Promise<boolean> {
  const found = await ask<unknown>(
    db,
    /* sql */ `
    insert into presence (page_id, member_id, tray_id, conversation_id, doing, seen_at)
    select :pageId, :memberId, tray_id, id, :doing, :now from conversation where id = :conversationId and tray_id = :trayId
    on conflict (page_id) do update set conversation_id = excluded.conversation_id, tray_id = excluded.tray_id,
      doing = excluded.doing, seen_at = excluded.seen_at
      where presence.member_id = excluded.member_id
    returning 1`,
    {
      pageId: page.pageId,
      conversationId: page.conversationId,
      doing: page.doing,
      memberId: grant.memberId,
      trayId: grant.tray.id,
      now: param(now),
    },
  );
  return found.length === 1;
}

/** Forgets a page of a member, and every page that nothing was heard of since a moment. */
export async function dropPresence(db: Database, grant: TrayGrant, pageId: string, since: Instant): Promise<void> {
  await knexOf(db)("presence")
    .where({ page_id: pageId, member_id: grant.memberId })
    .orWhere("seen_at", "<", param(since))
    .delete();
}

/** The colleagues of a member who have a conversation open, as heard since a moment; who writes in any page writes. */
export async function presentIn(
  db: Database,
  grant: TrayGrant,
  conversationId: ConversationId,
  since: Instant,
): Promise<Present[]> {
  const rows: { member_id: string; writes: boolean }[] = await knexOf(db)("presence")
    .select("member_id", knexOf(db).raw("bool_or(doing = 'writing') as writes"))
    .where({ tray_id: grant.tray.id, conversation_id: conversationId })
    .whereNot("member_id", grant.memberId)
    .where("seen_at", ">=", param(since))
    .groupBy("member_id")
    .orderBy("member_id");
  return rows.map(({ member_id, writes }) => ({
    memberId: trustedId<MemberId>(member_id),
    doing: writes ? "writing" : "looking",
  }));
}
