import type { CategoryId } from "../kernel/ids";

type Node = { readonly id: CategoryId; readonly parentId: CategoryId | null; readonly name: string };

/** A category at its place in the tree: how deep it stands, and the names from the top down to its own. */
export type Placed<C> = C & { readonly depth: number; readonly path: readonly string[] };

/**
 * The categories as one reads the tree from top to bottom: each followed by those under it, in the order in which they are
 * given. One whose parent is not among them stands at the top.
 */
export function inTreeOrder<C extends Node>(categories: readonly C[]): Placed<C>[] {
  const known = new Set(categories.map(({ id }) => id));
  const children = new Map<CategoryId | null, C[]>();
  for (const category of categories) {
    const parent = category.parentId !== null && known.has(category.parentId) ? category.parentId : null;
    children.set(parent, [...(children.get(parent) ?? []), category]);
  }
  const placed: Placed<C>[] = [];
  const walk = (parent: CategoryId | null, depth: number, above: readonly string[]) => {
    for (const category of children.get(parent) ?? []) {
      const path = [...above, category.name];
      placed.push({ ...category, depth, path });
      walk(category.id, depth + 1, path);
    }
  };
  walk(null, 0, []);
  return placed;
}

/** A category and everything under it, of whatever depth. */
export function withAllUnder(categories: readonly Node[], id: CategoryId): Set<CategoryId> {
  const under = new Set([id]);
  for (let before = 0; before < under.size; ) {
    before = under.size;
    for (const category of categories) {
      if (category.parentId !== null && under.has(category.parentId)) under.add(category.id);
    }
  }
  return under;
}

/** The categories above one, the nearest first. */
export function allAbove(categories: readonly Node[], id: CategoryId): CategoryId[] {
  const above: CategoryId[] = [];
  const parentOf = (of: CategoryId) => categories.find((one) => one.id === of)?.parentId ?? null;
  for (let parent = parentOf(id); parent !== null && !above.includes(parent); parent = parentOf(parent)) {
    above.push(parent);
  }
  return above;
}

/** A path as it is read, and as it stands in files: "Clients › Parishes". */
export function pathInWords(path: readonly string[]): string {
  return path.join(" › ");
}
