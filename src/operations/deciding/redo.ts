import { deriveDocket } from "../../core/docket/derive-docket";
import { effectInWords } from "../../core/journal/effect-in-words";
import { planRedo, type RedoPlan } from "../../core/journal/plan-redo";
import { type BatchId, type EntryId, trustedId } from "../../core/kernel/ids";
import { DAY, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import { NOTHING_HAPPENED } from "../../core/standing/derive-standing";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import {
  appendEntries,
  factsOf,
  lockCategoriesForShare,
  lockConversations,
  type NewEntry,
  newestRedoableBatch,
  saveDockets,
  undoingsOfBatch,
} from "../../storage/facts/index";
import { eachOnce } from "../../texts/said";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { namesFor, type Undone } from "./undo";

// As far back as the key that undoes.
const REDO_KEY_REACH = DAY;

/** Does again what the member's newest undoing took back, where nobody decided anew since. */
export async function redoNewest(deps: Deps, grant: TrayGrant): Promise<Result<Undone, Refusal>> {
  if (grant.role === "reader") return err({ kind: "readers-only-read" });
  const since = later(deps.now(), -REDO_KEY_REACH);
  const undoing = await newestRedoableBatch(deps.db, grant.tray.id, grant.memberId, since);
  if (undoing === null) return err({ kind: "nothing-to-redo" });
  const plans = await inTransaction(deps.db, async (trx): Promise<RedoPlan[]> => {
    await lockCategoriesForShare(trx);
    const before = await undoingsOfBatch(trx, grant.tray.id, undoing);
    const ids = [...new Set(before.map(({ conversationId }) => conversationId))];
    const held = await lockConversations(trx, grant.tray.id, ids);
    const [undoings, facts] = [await undoingsOfBatch(trx, grant.tray.id, undoing), await factsOf(trx, ids)];
    const batchId = trustedId<BatchId>(deps.newId());
    const done = held.map((conversation) => {
      const known = facts.get(conversation.id) ?? NOTHING_HAPPENED;
      const own = undoings.filter(({ conversationId }) => conversationId === conversation.id);
      const planned = planRedo(own, known.entries);
      const again = planned.flatMap((plan) => (plan.kind === "redo" ? [plan.entry] : []));
      const entries = again.map(
        (entry, at): NewEntry => ({
          id: trustedId<EntryId>(deps.newId()),
          trayId: conversation.trayId,
          conversationId: conversation.id,
          batchId,
          version: conversation.version + at + 1,
          at: deps.now(),
          by: grant.memberId,
          effect: entry.effect,
          redoes: entry.id,
        }),
      );
      const docket = deriveDocket({ ...known, entries: [...known.entries, ...entries] });
      return { id: conversation.id, version: conversation.version + entries.length, docket, entries, planned };
    });
    await appendEntries(
      trx,
      done.flatMap(({ entries }) => entries),
    );
    await saveDockets(trx, done);
    for (const { id } of done) deps.publishChange({ trayId: grant.tray.id, conversationId: id });
    return done.flatMap(({ planned }) => planned);
  });
  const names = await namesFor(deps, grant, plans);
  const words = (kept: readonly RedoPlan[]) =>
    eachOnce(kept.map(({ entry }) => effectInWords(entry.effect, names, entry.by)));
  const again = plans.filter(({ kind }) => kind === "redo");
  return ok({
    count: again.length,
    what: { all: words(again), by: "and" },
    left: words(plans.filter(({ kind }) => kind !== "redo")),
  });
}
