import { loadOnFirstInteraction } from "./load-on-first-interaction";

const menus = loadOnFirstInteraction(() => import("./menu-parts"));

/** What drops down and pops up, or null before anybody can have asked for it. */
export const useMenus = menus.use;
export const askForMenus = menus.ask;
