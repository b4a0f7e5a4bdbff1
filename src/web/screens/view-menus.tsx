import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { ChevronDown, Columns3, GripVertical, PanelRight } from "lucide-react";
import { DropdownMenu, Popover } from "radix-ui";
import type { ReactNode } from "react";
import {
  COLUMN_KEYS,
  type Column,
  type ColumnKey,
  GROUPINGS,
  type Grouping,
  isDescending,
  ORDERS,
  type Order,
  type SheetView,
  USUAL_WIDTHS,
} from "../../core/lists/sheet-view";
import { Button } from "../ui/button";
import { MENU, MENU_ITEM } from "../ui/menu-look";
import { COLUMN_NAMES } from "./sheet-columns";

const GROUPING_NAMES: Readonly<Record<Grouping, string>> = {
  day: "day",
  owner: "owner",
  category: "category",
  record: "record",
  person: "person",
  urgency: "urgency",
  due: "due date",
  standing: "standing",
};

const ORDER_NAMES: Readonly<Record<Order, readonly [descending: string, ascending: string]>> = {
  date: ["Newest first", "Oldest first"],
  due: ["Due last first", "Due first"],
  urgency: ["Most urgent first", "Least urgent first"],
  person: ["By person, Z to A", "By person"],
  subject: ["By subject, Z to A", "By subject"],
  waiting: ["Shortest here first", "Longest here first"],
};

const READING_NAMES = { beside: "Beside the list", below: "Below the list", alone: "In place of the list" } as const;
const DENSITY_NAMES = { dense: "Dense rows", roomy: "Roomy rows" } as const;

type ViewProps = { readonly view: SheetView; readonly onView: (view: SheetView | null) => void };

function Menu({ label, face, children }: { label: string; face: ReactNode; children: ReactNode }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={label}
        className="flex h-7 items-center gap-1 rounded-control px-1.5 whitespace-nowrap text-soft hover:bg-sunk hover:text-ink"
      >
        {face}
        <ChevronDown size={13} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={MENU} align="end">
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

const CHOSEN = `${MENU_ITEM} data-[state=checked]:font-semibold data-[state=checked]:text-act`;

function nameOfOrder(view: Pick<SheetView, "order" | "reversed">): string {
  return ORDER_NAMES[view.order][isDescending(view) ? 0 : 1];
}

/** Grouping, order, columns and where one reads, at the right end of the line above a list. */
export function ViewMenus({ view, onView }: ViewProps) {
  const grouped = view.grouping === null ? "Not grouped" : `Grouped by ${GROUPING_NAMES[view.grouping]}`;
  return (
    <div className="ml-auto hidden items-center gap-1 lg:flex">
      <Menu label="Grouping" face={grouped}>
        <DropdownMenu.RadioGroup
          value={view.grouping ?? ""}
          onValueChange={(value) => onView({ ...view, grouping: value === "" ? null : (value as Grouping) })}
        >
          {["", ...GROUPINGS].map((one) => (
            <DropdownMenu.RadioItem key={one} value={one} className={CHOSEN}>
              {one === "" ? "Not grouped" : `By ${GROUPING_NAMES[one as Grouping]}`}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </Menu>
      <Menu label="Order" face={nameOfOrder(view)}>
        <DropdownMenu.RadioGroup
          value={`${view.order} ${view.reversed}`}
          onValueChange={(value) => {
            const [order, reversed] = value.split(" ");
            onView({ ...view, order: order as Order, reversed: reversed === "true" });
          }}
        >
          {ORDERS.flatMap((order) =>
            [false, true].map((reversed) => (
              <DropdownMenu.RadioItem key={`${order} ${reversed}`} value={`${order} ${reversed}`} className={CHOSEN}>
                {nameOfOrder({ order, reversed })}
              </DropdownMenu.RadioItem>
            )),
          )}
        </DropdownMenu.RadioGroup>
      </Menu>
      <Popover.Root>
        <Popover.Trigger
          aria-label="Columns"
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
        >
          <Columns3 size={15} aria-hidden />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            role="dialog"
            aria-label="Columns"
            className="z-50 w-64 rounded-sheet border border-rule bg-paper shadow-raised"
          >
            <ColumnList view={view} onView={onView} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label="Reading and density"
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
        >
          <PanelRight size={15} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={MENU} align="end">
            <DropdownMenu.Label className="px-3 pt-1 pb-0.5 text-xs text-soft">An open conversation</DropdownMenu.Label>
            <DropdownMenu.RadioGroup
              value={view.reading}
              onValueChange={(reading) => onView({ ...view, reading: reading as SheetView["reading"] })}
            >
              {Object.entries(READING_NAMES).map(([reading, name]) => (
                <DropdownMenu.RadioItem key={reading} value={reading} className={CHOSEN}>
                  {name}
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-hair" />
            <DropdownMenu.RadioGroup
              value={view.density}
              onValueChange={(density) => onView({ ...view, density: density as SheetView["density"] })}
            >
              {Object.entries(DENSITY_NAMES).map(([density, name]) => (
                <DropdownMenu.RadioItem key={density} value={density} className={CHOSEN}>
                  {name}
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-hair" />
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => onView(null)}>
              Back to the usual view
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}

/** The columns: a box for each, in the order in which they stand, movable by pointer or by key. */
function ColumnList({ view, onView }: ViewProps) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const hidden = COLUMN_KEYS.filter((key) => !view.columns.some((column) => column.key === key));
  const moved = ({ active, over }: DragEndEvent) => {
    const from = view.columns.findIndex(({ key }) => key === active.id);
    const to = view.columns.findIndex(({ key }) => key === over?.id);
    if (from >= 0 && to >= 0 && from !== to) onView({ ...view, columns: arrayMove([...view.columns], from, to) });
  };
  const toggle = (key: ColumnKey) => {
    const isShown = view.columns.some((column) => column.key === key);
    const columns: readonly Column[] = isShown
      ? view.columns.filter((column) => column.key !== key)
      : [...view.columns, { key, width: USUAL_WIDTHS[key] }];
    onView({ ...view, columns });
  };
  return (
    <div className="py-1.5">
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
        <SortableContext items={view.columns.map(({ key }) => key)} strategy={verticalListSortingStrategy}>
          {view.columns.map(({ key }) => (
            <ColumnLine key={key} name={key} onToggle={toggle} />
          ))}
        </SortableContext>
      </DndContext>
      {hidden.map((key) => (
        <label key={key} className="flex cursor-pointer items-center gap-2 py-1 pr-3 pl-8 text-soft">
          <input type="checkbox" checked={false} onChange={() => toggle(key)} className="size-4 accent-act" />
          {COLUMN_NAMES[key]}
        </label>
      ))}
      <p className="border-t border-hair px-3 pt-2 text-right">
        <Button
          className="h-7"
          onClick={() => onView({ ...view, columns: COLUMN_KEYS.map((key) => ({ key, width: USUAL_WIDTHS[key] })) })}
        >
          Usual columns
        </Button>
      </p>
    </div>
  );
}

function ColumnLine({ name, onToggle }: { name: ColumnKey; onToggle: (key: ColumnKey) => void }) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: name });
  return (
    <div
      ref={setNodeRef}
      className="flex items-center gap-2 py-1 pr-3 pl-2"
      style={{ transform: transform === null ? undefined : `translateY(${transform.y}px)`, transition }}
    >
      <button
        type="button"
        aria-label={`Move ${COLUMN_NAMES[name]}`}
        {...attributes}
        {...listeners}
        className="cursor-grab text-soft"
      >
        <GripVertical size={14} aria-hidden />
      </button>
      <label className="flex flex-1 cursor-pointer items-center gap-2">
        <input
          type="checkbox"
          checked
          disabled={name === "subject"}
          onChange={() => onToggle(name)}
          className="size-4 accent-act"
        />
        {COLUMN_NAMES[name]}
      </label>
    </div>
  );
}
