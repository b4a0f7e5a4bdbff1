import type { ConversationId } from "../../core/kernel/ids";
import { type Instant, later, SECOND } from "../../core/kernel/instant";
import type { TrayGrant } from "../../storage/access/index";
import { type Doing, dropPresence, type Present, presentIn, savePresence } from "../../storage/conversation/index";
import type { Asking, Deps } from "../base/deps";

/** How often a page says that it is still there, in milliseconds. */
export const PRESENCE_EVERY_MS = 20 * SECOND;
// Two such words may be lost before a page counts as gone.
const heardSince = (now: Instant) => later(now, -2.5 * PRESENCE_EVERY_MS);

/** Notes that a page of a member shows a conversation, and what she does there; colleagues see it at once. */
export async function bePresent(
  deps: Deps,
  grant: TrayGrant,
  page: { readonly pageId: string; readonly conversationId: ConversationId; readonly doing: Doing },
): Promise<boolean> {
  const isKept = await savePresence(deps.db, grant, page, deps.now());
  if (isKept) deps.publishChange({ trayId: grant.tray.id, conversationId: page.conversationId, only: "presence" });
  return isKept;
}

/** Notes that a page of a member shows a conversation no more. */
export async function leavePage(
  deps: Deps,
  grant: TrayGrant,
  pageId: string,
  conversationId: ConversationId,
): Promise<void> {
  await dropPresence(deps.db, grant, pageId, heardSince(deps.now()));
  deps.publishChange({ trayId: grant.tray.id, conversationId, only: "presence" });
}

/** Which colleagues have a conversation open, and who of them writes. */
export function whoIsPresent(deps: Asking, grant: TrayGrant, conversationId: ConversationId): Promise<Present[]> {
  return presentIn(deps.db, grant, conversationId, heardSince(deps.now()));
}
