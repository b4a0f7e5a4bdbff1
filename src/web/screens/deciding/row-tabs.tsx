import { CategoryTab } from "../../ui/category-tab";
import { useTray } from "../frame/tray-data";

// Two or more with their names would run out of their column.
const MAX_NAMED_CHARACTERS = 18;

/** The categories of a row as tabs, with their names as far as there is room, or in any case (`isNamed`). */
export function RowTabs({ ids, isNamed = false }: { ids: readonly string[]; isNamed?: boolean }) {
  const { categories } = useTray();
  const given = ids.flatMap((id) => categories.find((category) => category.id === id) ?? []);
  const named =
    isNamed || given.length === 1 || given.reduce((sum, { name }) => sum + name.length, 0) <= MAX_NAMED_CHARACTERS;
  return given.map(({ id, code, name, ink, retired }) => (
    <CategoryTab key={id} code={code} name={name} ink={ink} short={!named} retired={retired} />
  ));
}
