import { ChevronDown, Columns3, PanelRight } from "lucide-react";
import { DropdownMenu, Popover } from "radix-ui";
import { lazy, type ReactNode, Suspense } from "react";
import { GROUPINGS, type Grouping, ORDERS, type Order, type SheetView } from "../../../core/lists/sheet-view";
import { commonTexts } from "../../../texts/en/common";
import { frameTexts } from "../../../texts/en/frame";
import { listTexts } from "../../../texts/en/list";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { useSay } from "../../ui/texts/use-say";
import { GROUPING_NAMES, nameOfGrouping, nameOfOrder } from "../frame/view-names";

const ColumnList = lazy(() => import("./column-list"));

const READING_NAMES = {
  beside: "list.besideTheList",
  below: "list.belowTheList",
  alone: "list.inPlaceOfTheList",
} as const;
const DENSITY_NAMES = { dense: "list.denseRows", roomy: "list.roomyRows" } as const;

type MenuName = "grouping" | "order";

type ViewProps = {
  readonly view: SheetView;
  /** The menu that somebody asked for before these were there: it opens at once. */
  readonly asked: MenuName | null;
  readonly onView: (view: SheetView | null) => void;
};

type MenuProps = {
  readonly label: string;
  readonly isAsked: boolean;
  readonly face: ReactNode;
  readonly children: ReactNode;
};

function Menu({ label, isAsked, face, children }: MenuProps) {
  return (
    <DropdownMenu.Root defaultOpen={isAsked}>
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

/** Grouping, order, columns and where one reads, at the right end of the line above a list. */
export default function ViewMenus({ view, asked, onView }: ViewProps) {
  const say = useSay(listTexts, commonTexts, frameTexts);
  return (
    <div className="ml-auto flex shrink-0 items-center gap-1">
      <Menu label={say("list.grouping")} isAsked={asked === "grouping"} face={nameOfGrouping(say, view.grouping)}>
        <DropdownMenu.RadioGroup
          value={view.grouping ?? ""}
          onValueChange={(value) => onView({ ...view, grouping: value === "" ? null : (value as Grouping) })}
        >
          {["", ...GROUPINGS].map((one) => (
            <DropdownMenu.RadioItem key={one} value={one} className={CHOSEN}>
              {one === "" ? say("list.notGrouped") : say("list.by", { name: say(GROUPING_NAMES[one as Grouping]) })}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </Menu>
      <Menu label={say("list.order")} isAsked={asked === "order"} face={nameOfOrder(say, view)}>
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
                {nameOfOrder(say, { order, reversed })}
              </DropdownMenu.RadioItem>
            )),
          )}
        </DropdownMenu.RadioGroup>
      </Menu>
      <Popover.Root>
        <Popover.Trigger
          aria-label={say("common.columns")}
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink max-lg:hidden"
        >
          <Columns3 size={15} aria-hidden />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="end"
            sideOffset={4}
            role="dialog"
            aria-label={say("common.columns")}
            className="z-50 w-64 rounded-sheet border border-rule bg-paper shadow-raised"
          >
            <Suspense fallback={null}>
              <ColumnList view={view} onView={onView} />
            </Suspense>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={say("list.readingAndDensity")}
          className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink max-lg:hidden"
        >
          <PanelRight size={15} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className={MENU} align="end">
            <DropdownMenu.Label className="px-3 pt-1 pb-0.5 text-xs text-soft">
              {say("list.anOpenConversation")}
            </DropdownMenu.Label>
            <DropdownMenu.RadioGroup
              value={view.reading}
              onValueChange={(reading) => onView({ ...view, reading: reading as SheetView["reading"] })}
            >
              {Object.entries(READING_NAMES).map(([reading, name]) => (
                <DropdownMenu.RadioItem key={reading} value={reading} className={CHOSEN}>
                  {say(name)}
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
                  {say(name)}
                </DropdownMenu.RadioItem>
              ))}
            </DropdownMenu.RadioGroup>
            <DropdownMenu.Separator className="my-1 border-t border-hair" />
            <DropdownMenu.Item className={MENU_ITEM} onSelect={() => onView(null)}>
              {say("list.backToTheUsualView")}
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}
