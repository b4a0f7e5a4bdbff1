import { lazy, Suspense } from "react";
import { commonTexts } from "../../../texts/en/common";
import { filterTexts } from "../../../texts/en/filter";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { DIMENSION_NAMES, type FilterMenuProps } from "./dimension-names";

const FilterCounts = lazy(() => import("./filter-counts"));

/** What a list can be filtered by in one dimension, each with how many it would show now. */
export function FilterMenu({ list, dimension, onChoose }: FilterMenuProps) {
  const say = useSay(filterTexts, commonTexts);
  const trigger = { className: "opener", children: say(DIMENSION_NAMES[dimension]) };
  return (
    <MenuTrigger
      {...trigger}
      aria-haspopup="dialog"
      menu={({ Popover }, isOpen) => (
        <Popover.Root defaultOpen={isOpen}>
          <Popover.Trigger {...trigger} />
          <Popover.Portal>
            <Popover.Content
              align="start"
              sideOffset={4}
              role="dialog"
              aria-label={say("filter.filterBy", { name: say(DIMENSION_NAMES[dimension]).toLowerCase() })}
              className="z-50 w-64 overflow-hidden rounded-sheet border border-rule bg-paper shadow-raised"
            >
              <Suspense fallback={<p className="px-3 py-2 text-soft">{say("filter.counting")}</p>}>
                <FilterCounts list={list} dimension={dimension} onChoose={onChoose} />
              </Suspense>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
    />
  );
}
