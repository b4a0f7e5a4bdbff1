import { MoreHorizontal } from "lucide-react";
import { useCallback, useRef } from "react";
import { Link } from "react-router";
import { categoriesTexts } from "../../../texts/en/categories";
import type { Say } from "../../../texts/say";
import type { CaredCategory } from "../../server/categories/category-view.server";
import { KeyCap } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { useCategoryChange } from "../deciding/use-category-change";
import { useTray } from "../frame/tray-data";
import { usePin } from "../frame/use-pin";
import { type CategorySpot, useCategoryDrag } from "./category-drag";
import { LISTED_NAMES, MAINTENANCE_COLUMNS } from "./category-maintenance-row";
import { placesAround } from "./category-places";

type CategoryLineProps = {
  readonly category: CaredCategory;
  readonly all: readonly CaredCategory[];
  readonly isOpen: boolean;
  readonly onShow: (params: Readonly<Record<string, string>>) => void;
};

const SPOT_LOOK: Readonly<Record<CategorySpot, string>> = {
  before: "shadow-[inset_0_2px_0_var(--act)]",
  after: "shadow-[inset_0_-2px_0_var(--act)]",
  under: "bg-act-soft",
};

/** A category in its tree: what it is, how much it is used, and what can be done with it; it can be dragged to its place. */
export function CategoryLine({ category, all, isOpen, onShow }: CategoryLineProps) {
  const say = useSay(categoriesTexts);
  const { tray } = useTray();
  const { post } = useCategoryChange();
  const line = useRef<HTMLLIElement>(null);
  const { id, name, code, ink, key, listed, listedForMe, open, all: inAll, depth, retired, mayChange } = category;
  const drop = useCallback(
    (dragged: string, spot: CategorySpot) => post({ do: "place", id: dragged, ...placesAround(all, id)[spot] }),
    [all, id, post],
  );
  const spot = useCategoryDrag(line, id, mayChange ? drop : null);
  return (
    <li
      ref={line}
      className={`${MAINTENANCE_COLUMNS} relative h-[33px] border-b border-hair ${spot === null ? "" : SPOT_LOOK[spot]} ${isOpen ? "bg-act-soft" : "hover:bg-ground/70"} ${mayChange ? "cursor-grab" : ""}`}
    >
      <span className="flex min-w-0 items-center gap-2" style={{ paddingLeft: depth * 22 }}>
        <Link to={id} className="max-w-full shrink-0 rounded-control hover:underline">
          <CategoryTab code={code} name={name} ink={ink} retired={retired} />
        </Link>
        {category.description !== "" && (
          <span className="min-w-0 truncate text-sm text-soft max-xl:hidden">{category.description}</span>
        )}
        {!category.common && <span className="shrink-0 text-xs text-soft">{say("categories.thisTrays")}</span>}
      </span>
      <span className="text-center">{key !== null && <KeyCap>{key}</KeyCap>}</span>
      <span className="truncate text-sm text-soft max-md:hidden">
        {say(retired ? "categories.retired" : LISTED_NAMES[listedForMe ?? listed])}
        {listedForMe !== null && !retired && say("categories.mine")}
      </span>
      <Count to={`/${tray.slug}/open?category=${id}`} count={open} label={say("categories.openWith", { open, name })} />
      <span className="text-end text-sm text-soft tabular-nums max-md:hidden">
        {inAll > 0 ? say({ figure: inAll }) : ""}
      </span>
      <LineMenu category={category} all={all} post={post} onShow={onShow} />
    </li>
  );
}

function Count({ to, count, label }: { to: string; count: number; label: string }) {
  const say = useSay();
  if (count === 0) return <span />;
  return (
    <Link to={to} aria-label={label} className="text-end tabular-nums hover:text-act hover:underline">
      {say({ figure: count })}
    </Link>
  );
}

type LineMenuProps = Pick<CategoryLineProps, "category" | "all" | "onShow"> & {
  readonly post: (fields: Readonly<Record<string, string>>) => void;
};

type Item = readonly [words: string, run: () => void];

/** What whoever may change a category can do with it. */
function changes(
  say: Say<typeof categoriesTexts>,
  { category: { id, retired }, all, post, onShow }: LineMenuProps,
): Item[] {
  const { up, down, deeper, higher } = placesAround(all, id);
  const moves = [
    [say("categories.moveUp"), up],
    [say("categories.moveDown"), down],
    [say("categories.moveUnderTheOneAbove"), deeper],
    [say("categories.moveOneLevelOut"), higher],
  ] as const;
  return [
    [say("categories.change"), () => onShow({ edit: id })],
    ...(retired ? [] : [[say("categories.newSubcategory"), () => onShow({ new: id })] as const]),
    ...moves.flatMap(([words, to]) => (to === null ? [] : [[words, () => post({ do: "place", id, ...to })] as const])),
    retired
      ? ([say("categories.reactivate"), () => post({ do: "bring-back", id })] as const)
      : ([say("categories.retire"), () => post({ do: "retire", id })] as const),
    [say("categories.mergeOrDeleteAsks"), () => onShow({ end: id })],
  ];
}

function LineMenu(props: LineMenuProps) {
  const say = useSay(categoriesTexts);
  const { id, name, mayChange, common } = props.category;
  const { mayLead, mayDecide } = useTray();
  const pin = usePin();
  const pinFor = (forAll: "true" | "false") => () => pin({ kind: "category", target: id, forAll });
  const able: readonly Item[] = [
    ...(mayChange ? changes(say, props) : []),
    ...(mayDecide ? [[say("categories.pinToMyShelf"), pinFor("false")] as const] : []),
    ...(mayLead ? [[say("categories.pinToEverybodysShelf"), pinFor("true")] as const] : []),
  ];
  if (able.length === 0) return <span />;
  const trigger = {
    "aria-label": say("categories.whatToDoWith", { name }),
    className: "grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink",
    children: <MoreHorizontal size={16} aria-hidden />,
  };
  return (
    <MenuTrigger
      {...trigger}
      menu={({ DropdownMenu }, isOpen) => (
        <DropdownMenu.Root defaultOpen={isOpen}>
          <DropdownMenu.Trigger {...trigger} />
          <DropdownMenu.Portal>
            <DropdownMenu.Content className={MENU} align="end">
              {able.map(([words, run]) => (
                <DropdownMenu.Item key={words} className={MENU_ITEM} onSelect={run}>
                  {words}
                </DropdownMenu.Item>
              ))}
              {common && !mayChange && (
                <DropdownMenu.Label className="px-3 py-1.5 text-sm text-soft">
                  {say("categories.commonToAllTrays")}
                </DropdownMenu.Label>
              )}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      )}
    />
  );
}
