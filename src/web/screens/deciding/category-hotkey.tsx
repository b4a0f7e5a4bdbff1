import type { KeyboardEvent } from "react";
import type { CategoryId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import { KeyCap } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { Dialog } from "../../ui/dialog";
import { useSay } from "../../ui/texts/use-say";
import { notePick } from "../frame/recent-picks";
import { useTray } from "../frame/tray-data";
import type { DialogProps } from "./dialog-props";

/** Waits for the key of a category, and gives it, or takes it off where everything has it; shows which there are. */
export function CategoryHotkey({ target, onDecide, onClose }: DialogProps) {
  const say = useSay(decidingTexts, commonTexts);
  const { categories } = useTray();
  const keyed = categories.filter(({ key, retired }) => key !== null && !retired);
  const isOnAll = (id: CategoryId) =>
    target.everything === null && target.rows.every(({ categoryIds }) => categoryIds.some((one) => one === id));
  const give = (id: CategoryId) => {
    notePick("category", id);
    onDecide({ kind: "categorise", categoryId: id, give: !isOnAll(id) });
    onClose();
  };
  const press = (event: KeyboardEvent) => {
    const category = keyed.find(({ key }) => key === event.key.toLowerCase());
    if (category === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    give(category.id);
  };
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title={say("deciding.categoryByKey")}>
      <div className="overflow-y-auto py-1">
        {keyed.length === 0 && <p className="px-4 py-3 text-soft">{say("deciding.noCategoryHasAKey")}</p>}
        {keyed.map(({ id, key, code, name, ink }) => (
          <button
            key={id}
            type="button"
            onClick={() => give(id)}
            onKeyDown={press}
            className="flex w-full items-center gap-3 px-4 py-1.5 text-start hover:bg-act-soft"
          >
            <KeyCap>{key ?? ""}</KeyCap>
            <CategoryTab code={code} name={name} ink={ink} />
            {isOnAll(id) && <span className="ml-auto text-sm text-soft">{say("common.added")}</span>}
          </button>
        ))}
      </div>
    </Dialog>
  );
}
