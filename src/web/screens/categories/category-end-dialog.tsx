import { useState } from "react";
import { withAllUnder } from "../../../core/categories/category-tree";
import type { CategoryUses } from "../../../operations/index.server";
import { categoriesTexts } from "../../../texts/en/categories";
import { commonTexts } from "../../../texts/en/common";
import type { CaredCategory } from "../../server/categories/category-view.server";
import { Button } from "../../ui/button";
import { CategoryTab } from "../../ui/category-tab";
import { Dialog } from "../../ui/dialog";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import type { useCategoryChange } from "../deciding/use-category-change";
import { FormFoot } from "../forms/form-foot";

type CategoryEndDialogProps = {
  readonly category: CaredCategory;
  readonly uses: CategoryUses;
  readonly all: readonly CaredCategory[];
  readonly change: ReturnType<typeof useCategoryChange>;
  readonly onClose: () => void;
};

const USED_BY = [
  ["conversations", "categories.usedByConversations"],
  ["open", "categories.usedByOpen"],
  ["followUps", "categories.usedByFollowUps"],
  ["views", "categories.usedByViews"],
  ["places", "categories.usedByPlaces"],
  ["rules", "categories.usedByRules"],
  ["contacts", "categories.usedByContacts"],
] as const;

/** Says what uses a category before it is merged into another or taken off everywhere; undoable either way. */
export function CategoryEndDialog({ category, uses: announced, all, change, onClose }: CategoryEndDialogProps) {
  const say = useSay(categoriesTexts, commonTexts);
  const { post, isBusy, refused } = change;
  const [by, setBy] = useState("");
  const uses = refused?.uses ?? announced;
  const children = all.filter(({ parentId }) => parentId === category.id).length;
  const successors = all.filter((one) => one.id !== category.id && !one.retired && (one.common || !category.common));
  const isBelow = by !== "" && withAllUnder(all, category.id).has(by as CaredCategory["id"]);
  const used = USED_BY.filter(([use]) => uses[use] > 0);
  const counts = Object.fromEntries(USED_BY.map(([use]) => [use, String(uses[use])]));
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("categories.mergeOrDelete", { name: category.name })}
      size="wide"
    >
      <div className="space-y-3 overflow-y-auto p-4">
        <p className="flex items-center gap-2">
          <CategoryTab code={category.code} name={category.name} ink={category.ink} />
          {used.length === 0
            ? say("categories.isNotUsedAnywhere")
            : category.common
              ? say("categories.isUsedInAllTrays")
              : say("categories.isUsedBy")}
        </p>
        {used.length > 0 && (
          <ul className="border-t border-hair">
            {used.map(([use, key]) => (
              <li key={use} className={`flex gap-3 border-b border-hair py-1 ${use === "open" ? "text-soft" : ""}`}>
                <span className="w-16 text-end font-semibold tabular-nums">{say({ figure: uses[use] })}</span>
                {say(key, { count: uses[use] })}
              </li>
            ))}
          </ul>
        )}
        <div>
          <span className="mb-1 block text-sm font-semibold">{say("categories.replaceWith")}</span>
          <Select
            label={say("categories.replaceWith")}
            value={by}
            choices={[
              ["", say("categories.nothingRemoveItEverywhere")],
              ...successors.map((one) => [one.id, one.path.join(" › ")] as const),
            ]}
            onChoose={setBy}
          />
        </div>
        {children > 0 && (
          <p className="text-sm text-soft">
            {say("categories.theUnderItMove", { children })}{" "}
            {by === "" || isBelow ? say("categories.oneLevelUp") : say("categories.underThatOne")}
          </p>
        )}
        <FormFoot problem={refused?.problem} onClose={onClose}>
          {!category.retired && (
            <Button onClick={() => post({ do: "retire", id: category.id })}>{say("categories.retireInstead")}</Button>
          )}
          <Button look="filled" disabled={isBusy} onClick={() => post({ do: "end", id: category.id, by, ...counts })}>
            {by === "" ? say("common.delete") : say("common.merge")}
          </Button>
        </FormFoot>
      </div>
    </Dialog>
  );
}
