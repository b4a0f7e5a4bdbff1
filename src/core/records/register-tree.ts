import type { PlacedRecord } from "./register-entry";

/** A record at its depth in the register, outermost 0. */
export type InTree<R> = R & { readonly depth: number };

/**
 * Records with what stands under each right after it, brothers in the order given. One whose parent is not among them
 * stands outermost; one that comes round on itself as well.
 */
export function inRegisterOrder<R extends PlacedRecord>(records: readonly R[]): InTree<R>[] {
  const known = new Set(records.map(({ id }) => id));
  const under = new Map<R["id"] | null, R[]>();
  for (const record of records) {
    const parent = record.parentId !== null && known.has(record.parentId) ? record.parentId : null;
    const brothers = under.get(parent);
    if (brothers === undefined) under.set(parent, [record]);
    else brothers.push(record);
  }
  const placed: InTree<R>[] = [];
  const isPlaced = new Set<R["id"]>();
  const walk = (record: R, depth: number) => {
    if (isPlaced.has(record.id)) return;
    isPlaced.add(record.id);
    placed.push({ ...record, depth });
    for (const child of under.get(record.id) ?? []) walk(child, depth + 1);
  };
  for (const record of under.get(null) ?? []) walk(record, 0);
  for (const record of records) walk(record, 0);
  return placed;
}
