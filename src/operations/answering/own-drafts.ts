import type { ConversationId, DraftId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { firstWords } from "../../core/text/new-text";
import type { Draft } from "../../core/writing/draft";
import { sanitiseHtml, textOfHtml } from "../../mail/index";
import type { TrayGrant } from "../../storage/access/index";
import {
  conversationRow,
  draftsOfMember,
  keepOwnDraft,
  type ListedDraft,
  type OwnDraft,
  ownDraft,
  setOwnDraft,
} from "../../storage/conversation/index";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";

/** How long a draft that was thrown away can be brought back. */
export const THROWN_AWAY_DAYS = 30;
const SHOWN = 200;

/** A draft with how it begins. */
export type DraftInList = ListedDraft & { readonly text: string };

/** What became of a draft that was to be kept: its version, or what stands there instead; null where it has ended. */
export type Keeping =
  | { readonly kind: "kept"; readonly version: number }
  | { readonly kind: "differs"; readonly there: OwnDraft | null };

/**
 * Keeps a draft of one's own. `version` is the one that was written on, 0 for a new one whose id its writer made, so that it
 * can be kept again where nobody knows whether it was. Kept twice with the same words it is there once.
 */
export async function keepDraft(
  deps: Deps,
  grant: TrayGrant,
  draft: {
    readonly id: DraftId;
    readonly conversationId: ConversationId | null;
    readonly version: number;
    readonly content: Draft;
  },
): Promise<Result<Keeping, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const { conversationId } = draft;
  if (conversationId !== null && (await conversationRow(deps.db, grant, conversationId)) === null)
    return err({ kind: "no-such-conversation" });
  const version = await keepOwnDraft(deps.db, grant, draft, deps.now());
  if (version !== null) return ok({ kind: "kept", version });
  const there = await ownDraft(deps.db, grant, draft.id);
  return ok({ kind: "differs", there: there?.state === "own" ? there : null });
}

/** A draft of one's own that is written on; null where there is none. */
export async function getOwnDraft(deps: Deps, grant: TrayGrant, id: DraftId): Promise<OwnDraft | null> {
  const draft = await ownDraft(deps.db, grant, id);
  return draft?.state === "own" ? draft : null;
}

/** What a member writes on, handed over or was handed, the newest first; and what she threw away and can still bring back. */
export async function getDrafts(deps: Deps, grant: TrayGrant): Promise<readonly DraftInList[]> {
  const drafts = await draftsOfMember(deps.db, grant, later(deps.now(), -THROWN_AWAY_DAYS * DAY), SHOWN);
  return drafts.map((draft) => ({ ...draft, text: firstWords(textOfHtml(sanitiseHtml(draft.content.html).html)) }));
}

/** Throws a draft of one's own away, or brings it back. */
export async function throwDraftAway(
  deps: Deps,
  grant: TrayGrant,
  id: DraftId,
  isThrown: boolean,
): Promise<Result<null, Refusal>> {
  const state = isThrown ? "given-up" : "own";
  const changed = await setOwnDraft(deps.db, grant, id, state, deps.now());
  return changed ? ok(null) : err({ kind: "no-such", what: "draft" });
}
