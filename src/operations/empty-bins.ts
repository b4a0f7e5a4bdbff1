import { DAY, later } from "../core/kernel/instant";
import {
  type BinUse,
  binDaysOf,
  binUse,
  deleteConversations,
  holdBinnedTooLong,
  inTransaction,
  isBinOverdue,
  type TrayGrant,
} from "../storage/index";
import type { Deps } from "./deps";

const BATCH = 100;

/** Deletes for good what has lain in the bins for longer than their terms; gives how many conversations. */
export async function emptyBins(deps: Deps): Promise<number> {
  if (!(await isBinOverdue(deps.db, deps.now()))) return 0;
  const gone = await inTransaction(deps.db, async (trx) => {
    const held = await holdBinnedTooLong(trx, deps.now(), BATCH);
    if (held.length > 0)
      await deleteConversations(
        trx,
        held.map(({ id }) => id),
      );
    return held;
  });
  for (const { id, trayId } of gone) deps.tell({ trayId, conversationId: id });
  return gone.length;
}

const LOOKED_BACK_DAYS = 30;
// Taking something back now and then is what a bin is for; more often, things are put there to be kept.
const MANY = 3;

/** A bin with its term. */
export type Bin = BinUse & {
  readonly days: number | null;
  /** Within how many days `takenBack` was counted. */
  readonly lookedBackDays: number;
  /** People take things back from it, or answer from it, as if it were a place to keep them. */
  readonly isUsedAsStorage: boolean;
};

/** What lies in the bin of a tray, when it goes, and whether it is used to keep things. */
export async function lookAtBin(deps: Deps, grant: TrayGrant): Promise<Bin> {
  const [days, use] = await Promise.all([
    binDaysOf(deps.db, grant.tray),
    binUse(deps.db, grant, later(deps.now(), -LOOKED_BACK_DAYS * DAY)),
  ]);
  return { ...use, days, lookedBackDays: LOOKED_BACK_DAYS, isUsedAsStorage: use.takenBack >= MANY };
}
