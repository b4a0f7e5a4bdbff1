type Node = { readonly id: string; readonly parentId: string | null };

/** A place in the tree as it is posted: under which category, before which one there; empty for the top, and for the end. */
type PostedPlace = { readonly parent: string; readonly before: string };

/** Where something can be put around a category, and where it can itself be moved to; null where there is no such place. */
export type Around = {
  readonly before: PostedPlace;
  readonly after: PostedPlace;
  readonly under: PostedPlace;
  readonly up: PostedPlace | null;
  readonly down: PostedPlace | null;
  /** Under the one above it on its level. */
  readonly deeper: PostedPlace | null;
  /** Beside the one it stands under, after it. */
  readonly higher: PostedPlace | null;
};

/** The places around a category; `all` as their tree is read. */
export function placesAround(all: readonly Node[], id: string): Around {
  const parentId = all.find((one) => one.id === id)?.parentId ?? null;
  const parent = parentId ?? "";
  const level = all.filter((one) => one.parentId === parentId);
  const at = level.findIndex((one) => one.id === id);
  const idAt = (place: number) => level[place]?.id ?? "";
  const grandparent = all.find((one) => one.id === parentId)?.parentId ?? null;
  const uncles = all.filter((one) => one.parentId === grandparent);
  const afterParent = uncles[uncles.findIndex((one) => one.id === parentId) + 1]?.id ?? "";
  return {
    before: { parent, before: id },
    after: { parent, before: idAt(at + 1) },
    under: { parent: id, before: "" },
    up: at > 0 ? { parent, before: idAt(at - 1) } : null,
    down: at < level.length - 1 ? { parent, before: idAt(at + 2) } : null,
    deeper: at > 0 ? { parent: idAt(at - 1), before: "" } : null,
    higher: parentId === null ? null : { parent: grandparent ?? "", before: afterParent },
  };
}
