import { useMemo } from "react";
import { Button } from "../ui/button";
import { CategoryTab } from "../ui/category-tab";
import { Picker } from "../ui/picker";
import type { DialogProps } from "./dialog-props";
import { notePick, recentPicks } from "./recent-picks";
import { useTray } from "./tray-data";

/** Gives and takes categories, several one after the other. */
export function CategoryPicker({ target, onDecide, onClose }: DialogProps) {
  const { categories } = useTray();
  // Once for the time that it is open: what one has just picked does not jump away under the next key.
  const recent = useMemo(() => recentPicks("category"), []);
  const pathOf = (id: string | null): string => {
    const category = categories.find((one) => one.id === id);
    return category === undefined ? "" : `${pathOf(category.parentId)}${category.name} `;
  };
  const known = recent.flatMap((id) => categories.find((category) => category.id === id) ?? []);
  const ordered = [...known, ...categories.filter(({ id }) => !recent.includes(id))];
  const given = (id: string) => target.rows.filter(({ categoryIds }) => categoryIds.some((one) => one === id)).length;
  const isOnAll = (id: string) => target.everything === null && given(id) === target.rows.length;
  return (
    <Picker
      title="Categories"
      prompt="Type a category's name or code"
      empty="There is no such category."
      choices={ordered.map(({ id, code, name, ink, parentId }) => ({
        id,
        words: `${code} ${pathOf(id)}`,
        on: isOnAll(id) ? true : given(id) > 0 ? "some" : false,
        face: (
          <span className={`flex items-center gap-2 ${parentId === null || recent.includes(id) ? "" : "pl-5"}`}>
            <CategoryTab code={code} name={name} ink={ink} />
          </span>
        ),
      }))}
      onPick={(id) => {
        notePick("category", id);
        onDecide({ kind: "categorise", category: id, give: !isOnAll(id) });
      }}
      onClose={onClose}
      footer={
        <span className="flex items-center justify-between">
          <span className="text-sm text-soft">Several can be given, one after the other.</span>
          <Button onClick={onClose}>Done</Button>
        </span>
      }
    />
  );
}
