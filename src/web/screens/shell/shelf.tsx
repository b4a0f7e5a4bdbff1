import { MoreHorizontal, Plus } from "lucide-react";
import { lazy, useRef, useState } from "react";
import { useFetcher } from "react-router";
import type { ShelfPlace } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { COMMANDS, type CommandId } from "../../keys/commands";
import { Opens, useCommands, useGo } from "../../keys/key-desk";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { useDropTarget } from "../frame/dragging";
import { useShelfDrop } from "../frame/shelf-drop";
import { useShelf, useTray } from "../frame/tray-data";
import { MyRecordsMenu } from "./my-records-menu";

const PinPicker = lazy(() => import("./pin-picker"));
const PlaceNameDialog = lazy(() => import("./place-name-dialog"));

const KEYED = 9;

/** Where a place leads when it is opened. */
function pathOf(slug: string, { leadsTo }: ShelfPlace): string | null {
  if (leadsTo === null) return null;
  if (leadsTo.kind === "record") return `/${slug}/records/${encodeURIComponent(leadsTo.code)}`;
  return `/${slug}/${leadsTo.scope}${leadsTo.query === "" ? "" : `?${leadsTo.query}`}`;
}

/** The strip along the lower edge with the member's places: they open, count, and take what is dropped on them. */
export function Shelf() {
  const say = useSay(shellTexts);
  const { tray, mayDecide } = useTray();
  const shelf = useShelf();
  const go = useGo();
  const drop = useShelfDrop();
  const [isPinning, setPinning] = useState(false);
  const [naming, setNaming] = useState<ShelfPlace | null>(null);
  const open = (place: ShelfPlace) => {
    const path = pathOf(tray.slug, place);
    if (path !== null) go(path);
  };
  const keyed = Object.fromEntries(
    shelf.slice(0, KEYED).map((place, at) => [
      `shelf-${at + 1}`,
      // What is chosen goes to the place; with nothing chosen one goes there oneself.
      () => (drop.current?.(place) === true ? undefined : open(place)),
    ]),
  ) as { [Id in CommandId]?: () => void };
  useCommands(keyed);
  const folders = [...new Set(shelf.map(({ folder }) => folder))];
  return (
    <nav
      aria-label={say("shell.shelf")}
      className="z-10 flex h-[46px] shrink-0 items-end gap-2 overflow-x-auto border-t border-rule bg-sunk px-4 shadow-shelf max-sm:hidden"
    >
      {folders.map((folder) => (
        <div key={folder} className="flex shrink-0 items-end gap-2">
          {folder !== "" && <span className="pb-3 text-xs font-semibold text-soft">{folder}</span>}
          {shelf.map((place, at) =>
            place.folder === folder ? (
              <PlaceCard
                key={place.id}
                place={place}
                at={at}
                onOpen={() => open(place)}
                onName={() => setNaming(place)}
              />
            ) : null,
          )}
        </div>
      ))}
      <MyRecordsMenu />
      {mayDecide && (
        <button
          type="button"
          onClick={() => setPinning(true)}
          className="flex h-[39px] shrink-0 items-center gap-2 rounded-t-sheet border border-b-0 border-dashed border-rule px-3 text-soft hover:border-act hover:text-act"
        >
          <Plus size={15} aria-hidden /> {say("shell.pinAPlace")}
        </button>
      )}
      <Opens>
        {isPinning && <PinPicker onClose={() => setPinning(false)} />}
        {naming !== null && <PlaceNameDialog place={naming} onClose={() => setNaming(null)} />}
      </Opens>
    </nav>
  );
}

type PlaceCardProps = {
  readonly place: ShelfPlace;
  readonly at: number;
  readonly onOpen: () => void;
  readonly onName: () => void;
};

function PlaceCard({ place, at, onOpen, onName }: PlaceCardProps) {
  const say = useSay(shellTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const shelf = useShelf();
  const fetcher = useFetcher();
  const card = useRef<HTMLSpanElement>(null);
  const isOver = useDropTarget(card, { kind: "place", place: place.id });
  const post = (fields: Record<string, string>) =>
    void fetcher.submit(fields, { method: "post", action: `/${tray.slug}/shelf` });
  const move = (step: 1 | -1) => {
    const ids = shelf.map(({ id }) => id as string);
    const [from, to] = [ids.indexOf(place.id), ids.indexOf(place.id) + step];
    if (to < 0 || to >= ids.length) return;
    ids.splice(to, 0, ...ids.splice(from, 1));
    post({ do: "arrange", ids: ids.join(" ") });
  };
  const mayChange = !place.isForAll || mayLead;
  const name = place.name || place.title || "removed";
  const trigger = {
    "aria-label": say("common.changeOf", { name }),
    children: <MoreHorizontal size={14} aria-hidden />,
  };
  return (
    <span ref={card} className={isOver ? "pinned is-over" : "pinned"}>
      <button
        type="button"
        onClick={onOpen}
        disabled={place.leadsTo === null}
        aria-keyshortcuts={at < KEYED ? COMMANDS[`shelf-${at + 1}` as CommandId].key : undefined}
      >
        {at < KEYED && <kbd aria-hidden>{at + 1}</kbd>}
        <span>
          <b dir="auto">{name}</b>
          <i>
            {place.leadsTo === null
              ? say("shell.noLongerThere")
              : say("shell.open", { note: place.note, count: place.count })}
          </i>
        </span>
      </button>
      <MenuTrigger
        {...trigger}
        menu={({ DropdownMenu }, isOpen) => (
          <DropdownMenu.Root defaultOpen={isOpen}>
            <DropdownMenu.Trigger {...trigger} />
            <DropdownMenu.Portal>
              <DropdownMenu.Content className={MENU} side="top" align="start">
                {mayChange && (
                  <>
                    <DropdownMenu.Item className={MENU_ITEM} onSelect={onName}>
                      {say("shell.nameAndFolder")}
                    </DropdownMenu.Item>
                    <DropdownMenu.Item className={MENU_ITEM} onSelect={() => move(-1)}>
                      {say("shell.moveToTheLeft")}
                    </DropdownMenu.Item>
                    <DropdownMenu.Item className={MENU_ITEM} onSelect={() => move(1)}>
                      {say("shell.moveToTheRight")}
                    </DropdownMenu.Item>
                    <DropdownMenu.Item className={MENU_ITEM} onSelect={() => post({ do: "unpin", id: place.id })}>
                      {say("shell.takeItOffTheShelf")}
                    </DropdownMenu.Item>
                  </>
                )}
                {mayLead && !place.isForAll && place.kind !== "view" && (
                  <DropdownMenu.Item
                    className={MENU_ITEM}
                    onSelect={() => {
                      post({ do: "unpin", id: place.id });
                      post({ do: "pin", kind: place.kind, target: place.target, forAll: "true" });
                    }}
                  >
                    {say("shell.putItOnEverybodyS")}
                  </DropdownMenu.Item>
                )}
                {!mayChange && (
                  <DropdownMenu.Label className="px-3 py-1.5 text-soft">
                    {say("shell.onEverybodySShelf")}
                  </DropdownMenu.Label>
                )}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        )}
      />
    </span>
  );
}
