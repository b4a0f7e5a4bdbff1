import { DAY, later, MINUTE } from "../../core/kernel/instant";
import type { TrayGrant } from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import {
  type BinUse,
  binDaysOf,
  binUse,
  deleteConversations,
  isBinOverdue,
  lockBinnedTooLong,
  sweepBlobs,
} from "../../storage/records/index";
import type { Deps } from "../base/deps";

// So many go in one transaction: what they hold is held for less than a tenth of a second.
const SLICE = 8;
// As many in one go as a busy office throws away in a day; the rest goes the next time.
const MOST_AT_A_TIME = 500;
const SWEPT_AFTER = MINUTE;
const SWEPT_AT_A_TIME = 200;

/** Deletes for good what has lain in the bins for longer than their terms, some at a time; gives how many conversations. */
export async function emptyBins(deps: Deps): Promise<number> {
  let count = 0;
  while (count < MOST_AT_A_TIME && (await isBinOverdue(deps.db, deps.now()))) {
    const gone = await emptySlice(deps);
    if (gone === 0) break;
    count += gone;
  }
  const before = later(deps.now(), -SWEPT_AFTER);
  await inTransaction(deps.db, (trx) => sweepBlobs(trx, before, deps.now(), SWEPT_AT_A_TIME));
  return count;
}

async function emptySlice(deps: Deps): Promise<number> {
  const gone = await inTransaction(deps.db, async (trx) => {
    const held = await lockBinnedTooLong(trx, deps.now(), SLICE);
    const ids = held.map(({ id }) => id);
    if (ids.length > 0) await deleteConversations(trx, ids, deps.now());
    return held;
  });
  for (const { id, trayId } of gone) deps.publishChange({ trayId, conversationId: id });
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
export async function getBin(deps: Deps, grant: TrayGrant): Promise<Bin> {
  const [days, use] = await Promise.all([
    binDaysOf(deps.db, grant.tray),
    binUse(deps.db, grant, later(deps.now(), -LOOKED_BACK_DAYS * DAY)),
  ]);
  return { ...use, days, lookedBackDays: LOOKED_BACK_DAYS, isUsedAsStorage: use.takenBack >= MANY };
}
