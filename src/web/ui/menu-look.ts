/** How menus look, wherever they drop down. */
export const MENU = "z-50 min-w-48 rounded-sheet border border-rule bg-paper py-1 shadow-raised";
export const MENU_ITEM =
  "flex cursor-pointer items-center px-3 py-1.5 outline-none data-[highlighted]:bg-act-soft data-[highlighted]:text-act";
