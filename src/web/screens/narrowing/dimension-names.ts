import type { MenuDimension } from "../../../core/lists/narrowing";
import type { ListStart } from "../../server/list/list-view.server";

export const DIMENSION_NAMES: Readonly<Record<MenuDimension, string>> = {
  owner: "Owner",
  category: "Category",
  record: "Record",
  person: "Person",
  urgency: "Urgency",
  age: "Age",
  attachment: "Attachments",
  unread: "Unread",
};

/** A menu that narrows a list in one dimension. */
export type NarrowMenuProps = {
  readonly list: Pick<ListStart, "scope" | "narrowing">;
  readonly dimension: MenuDimension;
  readonly onChoose: (value: string, name: string) => void;
};
