import { type RefObject, useEffect, useState } from "react";
import { dragEngine } from "../frame/dragging";

/** Where a dragged category would be put: before or after the one under the pointer, or under it. */
export type CategorySpot = "before" | "under" | "after";

const EDGE = 0.3;

function spotAt(element: Element, y: number): CategorySpot {
  const { top, height } = element.getBoundingClientRect();
  const share = (y - top) / height;
  return share < EDGE ? "before" : share > 1 - EDGE ? "after" : "under";
}

/** Makes the line of a category something to drag and to drop others on; gives where one that is held would go. */
export function useCategoryDrag(
  line: RefObject<HTMLElement | null>,
  id: string,
  onDrop: ((dragged: string, spot: CategorySpot) => void) | null,
): CategorySpot | null {
  const drags = dragEngine.use();
  const [spot, setSpot] = useState<CategorySpot | null>(null);
  useEffect(() => {
    const element = line.current;
    if (drags === null || element === null || onDrop === null) return;
    const isOther = (data: Record<string, unknown>) => typeof data.categoryId === "string" && data.categoryId !== id;
    const stopDrag = drags.draggable({ element, getInitialData: () => ({ categoryId: id }) });
    const stopDrop = drags.dropTargetForElements({
      element,
      canDrop: ({ source }) => isOther(source.data),
      onDrag: ({ location }) => setSpot(spotAt(element, location.current.input.clientY)),
      onDragLeave: () => setSpot(null),
      onDrop: ({ source, location }) => {
        setSpot(null);
        onDrop(String(source.data.categoryId), spotAt(element, location.current.input.clientY));
      },
    });
    return () => {
      stopDrag();
      stopDrop();
    };
  }, [drags, line, id, onDrop]);
  return spot;
}
