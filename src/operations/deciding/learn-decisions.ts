import { inTransaction } from "../../storage/base/index";
import { learnWhatIsDue } from "../../storage/facts/index";
import type { Deps } from "../base/deps";

// A decision that is learned holds nobody up, but a stop waits for it.
const LEARNED_AT_ONCE = 20;

/** Learns from what was decided since, so that proposals follow from it: all of it, unless it is told to end. */
export async function learnDecisions(deps: Pick<Deps, "db">, goesOn: () => boolean = () => true): Promise<void> {
  let isMore = true;
  while (isMore && goesOn()) isMore = await inTransaction(deps.db, (trx) => learnWhatIsDue(trx, LEARNED_AT_ONCE));
}
