import {
  DndContext,
  DragOverlay,
  type DragStartEvent,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { type ReactNode, useState } from "react";

/** Where dragged conversations can be let go. */
export type DropTarget =
  | { readonly kind: "standing"; readonly standing: string }
  | { readonly kind: "place"; readonly place: string };

/** What is dragged: a row, and how many with it if it is among those chosen. */
export type Dragged = { readonly rowId: string; readonly words: string };

// Less is a click by an unsteady hand.
const DRAG_FROM_PIXELS = 6;

/** Lets rows be dragged onto the flow bar and the shelf; what is let go is told to the list that it came from. */
export function Dragging({ children }: { children: ReactNode }) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM_PIXELS } }));
  const [words, setWords] = useState<string | null>(null);
  const start = ({ active }: DragStartEvent) => setWords((active.data.current as Dragged | undefined)?.words ?? null);
  return (
    <DndContext
      // Counted ids would differ between the server and the browser.
      id="conversations"
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={start}
      onDragEnd={() => setWords(null)}
      onDragCancel={() => setWords(null)}
      accessibility={{ screenReaderInstructions: { draggable: "Use the keys shown in the list of keys to decide." } }}
    >
      {children}
      <DragOverlay dropAnimation={null}>
        {words !== null && (
          <span className="inline-block max-w-72 truncate rounded-control border border-act bg-paper px-3 py-1 font-serif shadow-raised">
            {words}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}
