import type { Listed } from "../../../core/categories/category";
import type { categoriesTexts } from "../../../texts/en/categories";
import type { PlainKey } from "../../../texts/say";

/** The columns of the list of categories, which its heading shares. */
export const MAINTENANCE_COLUMNS =
  "grid grid-cols-[minmax(0,1fr)_28px_44px_28px] items-center gap-x-3 px-4 md:grid-cols-[minmax(0,1fr)_28px_112px_56px_56px_28px]";

/** When a category stands in menus, in a word or two. */
export const LISTED_NAMES: Readonly<Record<Listed, PlainKey<typeof categoriesTexts>>> = {
  always: "categories.always",
  open: "categories.whenOpen",
  never: "categories.never",
};
