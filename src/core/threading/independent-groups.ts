/**
 * Parts messages into so many groups that share nothing of what ties them together, in their order within each, so that the
 * groups can be stored at the same time. Groups are of about the same size where threads allow it.
 */
export function independentGroups<Item>(
  items: readonly Item[],
  tiesOf: (item: Item) => readonly string[],
  count: number,
): Item[][] {
  const threadOf = new Map<string, Item[]>();
  const threads = new Set<Item[]>();
  for (const item of items) {
    const ids = tiesOf(item);
    const tied = new Set(ids.flatMap((id) => threadOf.get(id) ?? []));
    const joined = [...tied, item];
    for (const id of ids) {
      const thread = threadOf.get(id);
      if (thread !== undefined) threads.delete(thread);
    }
    threads.add(joined);
    for (const one of joined) for (const id of tiesOf(one)) threadOf.set(id, joined);
  }
  const places = new Map(items.map((item, at) => [item, at]));
  const groups: Item[][] = Array.from({ length: count }, () => []);
  for (const thread of threads) groups.toSorted((a, b) => a.length - b.length)[0]?.push(...thread);
  return groups.map((group) => group.toSorted((a, b) => (places.get(a) ?? 0) - (places.get(b) ?? 0)));
}
