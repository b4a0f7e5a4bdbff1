export { DropdownMenu, Popover } from "radix-ui";
