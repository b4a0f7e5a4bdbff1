import { Library } from "lucide-react";
import { type ComponentProps, startTransition, useCallback, useEffect, useState } from "react";
import { useFetcher, useNavigate } from "react-router";
import { type PinId, trustedId } from "../../../core/kernel/ids";
import { placedItems } from "../../../core/records/arrangement";
import type { ShelfPlace } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import type { loader } from "../../routes/records/arrangement";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { useShelfDrop } from "../frame/shelf-drop";
import { useTray } from "../frame/tray-data";

const INDENT = ["pl-3", "pl-7", "pl-11", "pl-15", "pl-19", "pl-23"] as const;

/** A member's own tree of records on the shelf: one is opened, or takes what is chosen in a list. */
export function MyRecordsMenu() {
  const say = useSay(commonTexts);
  const trigger = {
    "aria-label": say("common.myRecords"),
    className:
      "flex h-[39px] shrink-0 items-center gap-2 rounded-t-sheet border border-b-0 border-rule bg-paper px-3 hover:bg-act-soft",
    children: (
      <>
        <Library size={15} aria-hidden className="text-soft" /> {say("common.myRecords")}
      </>
    ),
  };
  return <MenuTrigger {...trigger} menu={(parts, isOpen) => <Menu {...parts} {...{ trigger, isOpen }} />} />;
}

type MenuProps = Pick<Parameters<ComponentProps<typeof MenuTrigger>["menu"]>[0], "DropdownMenu"> & {
  readonly trigger: ComponentProps<"button">;
  readonly isOpen: boolean;
};

// Asked for each time before the menu is opened, as it may be another one since: what came while it is open would move
// everything away from under the pointer.
function Menu({ DropdownMenu, trigger, isOpen: isWanted }: MenuProps) {
  const { tray } = useTray();
  const { load, data: mine } = useFetcher<typeof loader>();
  const [isOpen, setOpen] = useState(false);
  const open = useCallback(async () => {
    await load(`/${tray.slug}/arrangement`);
    startTransition(() => setOpen(true));
  }, [load, tray.slug]);
  useEffect(() => {
    if (isWanted) void open();
  }, [isWanted, open]);
  return (
    <DropdownMenu.Root open={isOpen} onOpenChange={(wanted) => (wanted ? void open() : setOpen(false))}>
      <DropdownMenu.Trigger {...trigger} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={`${MENU} max-h-96 overflow-y-auto`} side="top" align="start">
          <MyRecords DropdownMenu={DropdownMenu} mine={mine} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

type MyRecordsProps = Pick<MenuProps, "DropdownMenu"> & {
  readonly mine: Awaited<ReturnType<typeof loader>> | undefined;
};

function MyRecords({ DropdownMenu, mine }: MyRecordsProps) {
  const say = useSay(shellTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const drop = useShelfDrop();
  const placed = placedItems(mine?.tree ?? []);
  return (
    <>
      {placed.map(({ item, spot }) => {
        const indent = INDENT[Math.min(spot.folders.length, INDENT.length - 1)];
        if (item.kind === "folder") {
          return (
            <DropdownMenu.Label key={item.key} className={`py-1 text-sm font-semibold text-soft ${indent}`}>
              {item.name}
            </DropdownMenu.Label>
          );
        }
        const record = mine?.records.find(({ id }) => id === item.recordId);
        if (record === undefined) return null;
        const name = item.name || record.title;
        return (
          <DropdownMenu.Item
            key={`${spot.folders.join()} ${record.id}`}
            className={`${MENU_ITEM} ${indent}`}
            onSelect={() => {
              if (drop.current?.(placeOf(record, name)) !== true) navigate(`/${tray.slug}/records/${record.code}`);
            }}
          >
            <span className="mr-2 text-sm text-soft">{record.code}</span>
            <span className="font-serif">{name}</span>
          </DropdownMenu.Item>
        );
      })}
      {placed.length === 0 && (
        <DropdownMenu.Label className="px-3 py-1.5 text-soft">
          {say("shell.nothingIsInYourArrangement")}
        </DropdownMenu.Label>
      )}
      <DropdownMenu.Item
        className={`${MENU_ITEM} border-t border-hair`}
        onSelect={() => void navigate(`/${tray.slug}/arrangement`)}
      >
        {say("shell.changeMyArrangement")}
      </DropdownMenu.Item>
    </>
  );
}

// As if it were a place of its own.
function placeOf(record: { readonly id: string; readonly code: string }, name: string): ShelfPlace {
  return {
    id: trustedId<PinId>(record.id),
    kind: "record",
    target: record.id,
    name,
    folder: "",
    isForAll: false,
    title: name,
    note: record.code,
    count: 0,
    leadsTo: { kind: "record", code: record.code, scope: "open", query: `record=${record.id}` },
  } as ShelfPlace;
}
