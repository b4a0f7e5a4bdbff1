import type { MemberId } from "../../core/kernel/ids";
import { allTrays, grantsOf } from "../../storage/access/index";
import type { Transaction } from "../../storage/base/index";
import type { Within } from "./deps";

/** Whether a member leads every tray there is, and so may change what is common to all. */
export async function leadsEverywhere(trx: Transaction, deps: Within, memberId: MemberId): Promise<boolean> {
  const [grants, trays] = [await grantsOf(trx, memberId, deps.now()), await allTrays(trx)];
  return trays.every(({ id }) => grants.some(({ tray, role }) => tray.id === id && role === "lead"));
}
