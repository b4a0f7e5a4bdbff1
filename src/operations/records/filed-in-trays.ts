import type { RecordId } from "../../core/kernel/ids";
import type { Instant } from "../../core/kernel/instant";
import { grantsOf, type TrayGrant } from "../../storage/access/index";
import { filedCounts } from "../../storage/records/index";
import type { Deps } from "../base/deps";

/** How many conversations are filed on a record, how many of them are open, and when the newest message came. */
export type Filed = { readonly filed: number; readonly open: number; readonly newest: Instant };

/** What is filed on each record in the trays of a member: of a tray it is the same for everybody, which trays are counted is not. */
export async function filedInTraysOf(deps: Deps, { memberId }: TrayGrant): Promise<ReadonlyMap<RecordId, Filed>> {
  const grants = await grantsOf(deps.db, memberId, deps.now());
  const trays = await Promise.all(
    grants.map(({ tray }) => deps.memory.recall(tray.id, "counts", "filed", () => filedCounts(deps.db, tray.id))),
  );
  const all = new Map<RecordId, Filed>();
  for (const [id, more] of trays.flatMap((counts) => [...counts])) all.set(id, together(all.get(id), more));
  return all;
}

function together(one: Filed | undefined, other: Filed): Filed {
  if (one === undefined) return other;
  const newest = one.newest > other.newest ? one : other;
  return { filed: one.filed + other.filed, open: one.open + other.open, newest: newest.newest };
}
