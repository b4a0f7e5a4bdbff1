import { lazy, Suspense } from "react";
import { commonTexts } from "../../../texts/en/common";
import { narrowingTexts } from "../../../texts/en/narrowing";
import { MenuTrigger } from "../../ui/menu-trigger";
import { useSay } from "../../ui/texts/use-say";
import { DIMENSION_NAMES, type NarrowMenuProps } from "./dimension-names";

const NarrowCounts = lazy(() => import("./narrow-counts"));

/** What a list can be narrowed by in one dimension, each with how many it would show now. */
export function NarrowMenu({ list, dimension, onChoose }: NarrowMenuProps) {
  const say = useSay(narrowingTexts, commonTexts);
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
              aria-label={say("narrowing.filterBy", { name: say(DIMENSION_NAMES[dimension]).toLowerCase() })}
              className="z-50 w-64 overflow-hidden rounded-sheet border border-rule bg-paper shadow-raised"
            >
              <Suspense fallback={<p className="px-3 py-2 text-soft">{say("narrowing.counting")}</p>}>
                <NarrowCounts list={list} dimension={dimension} onChoose={onChoose} />
              </Suspense>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
    />
  );
}
