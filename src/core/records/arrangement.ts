import type { RecordId } from "../kernel/ids";

/** A record in somebody's own tree, under her own name for it; empty for its title. */
type ArrangedRecord = { readonly kind: "record"; readonly recordId: RecordId; readonly name: string };
/** A folder of hers; `key` is like no other in the tree. */
type ArrangedFolder = {
  readonly kind: "folder";
  readonly key: string;
  readonly name: string;
  readonly items: readonly Arranged[];
};
export type Arranged = ArrangedRecord | ArrangedFolder;

/** A member's own tree of the records that she works with, in her order. */
export type Arrangement = readonly Arranged[];

/** As many records and folders as one tree can have, and folders in each other. */
export const MOST_ARRANGED = 500;
export const DEEPEST = 5;

/** Where something lies: the keys of the folders that lead to it, and its place in the last of them. */
export type Spot = { readonly folders: readonly string[]; readonly at: number };

/** An item with where it lies, in the order in which a tree is read. */
export type Placed = { readonly item: Arranged; readonly spot: Spot };

/** All items of a tree, each folder before what is in it. */
export function placedItems(tree: Arrangement, folders: readonly string[] = []): Placed[] {
  return tree.flatMap((item, at) => [
    { item, spot: { folders, at } },
    ...(item.kind === "folder" ? placedItems(item.items, [...folders, item.key]) : []),
  ]);
}

/** A tree with the contents of one of its folders changed; the outermost contents for no folder. */
function within(
  tree: Arrangement,
  folders: readonly string[],
  change: (items: Arrangement) => Arrangement,
): Arrangement {
  const [key, ...inner] = folders;
  if (key === undefined) return change(tree);
  return tree.map((item) =>
    item.kind === "folder" && item.key === key ? { ...item, items: within(item.items, inner, change) } : item,
  );
}

/** What lies at a spot; null when nothing does. */
export function itemAt(tree: Arrangement, { folders, at }: Spot): Arranged | null {
  let items = tree;
  for (const key of folders) {
    const folder = items.find((item) => item.kind === "folder" && item.key === key);
    if (folder?.kind !== "folder") return null;
    items = folder.items;
  }
  return items[at] ?? null;
}

/** Puts an item at the end of a folder, or outermost; a record that is in there already is not put twice. */
export function addedTo(tree: Arrangement, folders: readonly string[], item: Arranged): Arrangement {
  const isSame = (one: Arranged) => item.kind === "record" && one.kind === "record" && one.recordId === item.recordId;
  return within(tree, folders, (items) => (items.some(isSame) ? items : [...items, item]));
}

/** Gives the item at a spot a name. */
export function renamedAt(tree: Arrangement, { folders, at }: Spot, name: string): Arrangement {
  return within(tree, folders, (items) => items.map((item, place) => (place === at ? { ...item, name } : item)));
}

/** Takes the item at a spot out; what was in a folder stays where that was. */
export function removedAt(tree: Arrangement, { folders, at }: Spot): Arrangement {
  return within(tree, folders, (items) =>
    items.flatMap((item, place) => {
      if (place !== at) return [item];
      return item.kind === "folder" ? item.items : [];
    }),
  );
}

/** Moves the item at a spot before or behind its neighbour; where it has none there, nothing moves. */
export function steppedAt(tree: Arrangement, { folders, at }: Spot, step: -1 | 1): Arrangement {
  return within(tree, folders, (items) => {
    const to = at + step;
    const [moved, other] = [items[at], items[to]];
    if (moved === undefined || other === undefined) return items;
    return items.map((item, place) => (place === at ? other : place === to ? moved : item));
  });
}

/** Moves the item at a spot into a folder, or outermost; a folder does not go into itself. */
export function movedInto(tree: Arrangement, spot: Spot, folders: readonly string[]): Arrangement {
  const item = itemAt(tree, spot);
  if (item === null || (item.kind === "folder" && folders.includes(item.key))) return tree;
  const taken = within(tree, spot.folders, (items) => items.filter((_, place) => place !== spot.at));
  return addedTo(taken, folders, item);
}

/** Whether a tree can be kept: not too much, not too deep, and no key twice. */
export function isSound(tree: Arrangement): boolean {
  const placed = placedItems(tree);
  const keys = placed.flatMap(({ item }) => (item.kind === "folder" ? [item.key] : []));
  const isDeep = placed.some(({ spot }) => spot.folders.length > DEEPEST);
  return placed.length <= MOST_ARRANGED && !isDeep && new Set(keys).size === keys.length;
}

/** A copy of a tree that can lie beside it: its folders have other keys. */
export function copied(tree: Arrangement, newKey: () => string): Arrangement {
  return tree.map((item) =>
    item.kind === "folder" ? { ...item, key: newKey(), items: copied(item.items, newKey) } : item,
  );
}

/** A tree without the records that its reader may not know of; folders stay. */
export function knownOf(tree: Arrangement, isKnown: (id: RecordId) => boolean): Arrangement {
  return tree.flatMap((item): Arranged[] => {
    if (item.kind === "folder") return [{ ...item, items: knownOf(item.items, isKnown) }];
    return isKnown(item.recordId) ? [item] : [];
  });
}

/** The records of a tree, each once, in the order in which it is read. */
export function arrangedIds(tree: Arrangement): RecordId[] {
  return [...new Set(placedItems(tree).flatMap(({ item }) => (item.kind === "record" ? [item.recordId] : [])))];
}
