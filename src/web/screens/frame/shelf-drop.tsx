import { createContext, type RefObject, useContext, useEffect } from "react";
import type { ShelfPlace } from "../../../operations/index.server";

/** What a list does when what is chosen of it is put on a place; false when nothing is chosen. */
export type ShelfDrop = (place: ShelfPlace) => boolean;

const ShelfDropContext = createContext<RefObject<ShelfDrop | null>>({ current: null });

/** The list's answer to a place's key, for the shelf to ask and the list to set. */
export function useShelfDrop(): RefObject<ShelfDrop | null> {
  return useContext(ShelfDropContext);
}

/** Answers for a list when a place's key is pressed, while the list is there. */
export function useShelfPut(put: ShelfDrop): void {
  const drop = useShelfDrop();
  drop.current = put;
  useEffect(
    () => () => {
      drop.current = null;
    },
    [drop],
  );
}
