/** What is chosen of a list: some rows, or everything that it shows or one of its groups holds, loaded or not. */
export type RowSelection<Row extends Listed = Listed> =
  | { readonly kind: "some"; readonly rows: ReadonlyMap<string, Row> }
  | { readonly kind: "everything"; readonly lane: string | null; readonly name: string; readonly count: number };

type Listed = { readonly id: string };

type ChosenLane<Row extends Listed> = {
  readonly key: string;
  readonly name: string;
  readonly count: number;
  readonly rows: readonly Row[];
};

const rowsOf = <Row extends Listed>(now: RowSelection<Row>) => new Map(now.kind === "some" ? now.rows : []);

/** With a row that was not chosen, without one that was. Of everything, only this row is left. */
export function withToggled<Row extends Listed>(now: RowSelection<Row>, row: Row): RowSelection<Row> {
  const rows = rowsOf(now);
  if (!rows.delete(row.id)) rows.set(row.id, row);
  return { kind: "some", rows };
}

/** With every row from the one with the id `anchor` to this one, whichever of them stands first. */
export function withStretch<Row extends Listed>(
  now: RowSelection<Row>,
  row: Row,
  anchor: string | null,
  inOrder: readonly Row[],
): RowSelection<Row> {
  const to = inOrder.findIndex(({ id }) => id === row.id);
  const from = Math.max(0, anchor === null ? to : inOrder.findIndex(({ id }) => id === anchor));
  const rows = rowsOf(now);
  for (const one of inOrder.slice(Math.min(from, to), Math.max(from, to) + 1)) rows.set(one.id, one);
  return { kind: "some", rows };
}

/** With a whole group, or without it where all of it was chosen; as everything of it where not all of it is loaded. */
export function withLane<Row extends Listed>(now: RowSelection<Row>, lane: ChosenLane<Row>): RowSelection<Row> {
  if (lane.rows.length < lane.count) return { kind: "everything", lane: lane.key, name: lane.name, count: lane.count };
  const rows = rowsOf(now);
  const isWhole = lane.rows.every(({ id }) => rows.has(id));
  for (const row of lane.rows) isWhole ? rows.delete(row.id) : rows.set(row.id, row);
  return { kind: "some", rows };
}

/** How many are chosen. */
export function countSelected(chosen: RowSelection): number {
  return chosen.kind === "some" ? chosen.rows.size : chosen.count;
}

/** Whether a row that stands in a group is among them. */
export function isSelected(chosen: RowSelection, row: Listed, laneKey: string): boolean {
  return chosen.kind === "some" ? chosen.rows.has(row.id) : chosen.lane === null || chosen.lane === laneKey;
}
