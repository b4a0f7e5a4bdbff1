import { type RefObject, useEffect, useRef, useState } from "react";
import { loadOnFirstInteraction } from "../../ui/load-on-first-interaction";

/** Where dragged conversations can be let go. */
export type DropTarget =
  | { readonly kind: "standing"; readonly standing: string }
  | { readonly kind: "place"; readonly place: string };

/** What drags, fetched with the first thing that somebody does. */
export const dragEngine = loadOnFirstInteraction(() => import("./drag-engine"));

/** Makes an element something to drag: a row of a list. */
export function useDragged(element: RefObject<HTMLElement | null>, rowId: string): void {
  const drags = dragEngine.use();
  useEffect(() => {
    if (drags === null || element.current === null) return;
    return drags.draggable({ element: element.current, getInitialData: () => ({ rowId }) });
  }, [drags, element, rowId]);
}

/** Makes an element take what is dropped on it; true while something is held over it. */
export function useDropTarget(element: RefObject<HTMLElement | null>, target: DropTarget | null): boolean {
  const drags = dragEngine.use();
  const [isOver, setOver] = useState(false);
  const key = JSON.stringify(target);
  useEffect(() => {
    const data: DropTarget | null = JSON.parse(key);
    if (drags === null || element.current === null || data === null) return;
    return drags.dropTargetForElements({
      element: element.current,
      getData: () => ({ target: data }),
      onDragEnter: () => setOver(true),
      onDragLeave: () => setOver(false),
      onDrop: () => setOver(false),
    });
  }, [drags, element, key]);
  return isOver;
}

/** Hears where a row was let go. */
export function useLetGo(letGo: (rowId: string, target: DropTarget) => void): void {
  const drags = dragEngine.use();
  const current = useRef(letGo);
  current.current = letGo;
  useEffect(() => {
    if (drags === null) return;
    return drags.monitorForElements({
      onDrop({ source, location }) {
        const target = location.current.dropTargets[0]?.data.target as DropTarget | undefined;
        if (target !== undefined) current.current(String(source.data.rowId), target);
      },
    });
  }, [drags]);
}
