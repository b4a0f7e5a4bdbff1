import { type ComponentProps, type ReactNode, useState } from "react";
import { askForMenus, useMenus } from "./menus";

type Menus = NonNullable<ReturnType<typeof useMenus>>;

/**
 * A button that opens something, before and after what opens it has been fetched: pressed before, it opens as soon as it
 * can. `menu` draws the whole with the parts, beginning open where that is so.
 */
export function MenuTrigger({
  menu,
  ...button
}: ComponentProps<"button"> & { readonly menu: (parts: Menus, isOpen: boolean) => ReactNode }) {
  const parts = useMenus();
  const [isWanted, setWanted] = useState(false);
  if (parts !== null) return menu(parts, isWanted);
  return (
    <button
      type="button"
      aria-haspopup="menu"
      {...button}
      onClick={() => {
        askForMenus();
        setWanted(true);
      }}
    />
  );
}
