import type { MenuDimension } from "../../../core/lists/filter";
import type { commonTexts } from "../../../texts/en/common";
import type { filterTexts } from "../../../texts/en/filter";
import type { PlainKey } from "../../../texts/say";
import type { ListStart } from "../../server/list/list-view.server";

export const DIMENSION_NAMES: Readonly<Record<MenuDimension, PlainKey<typeof filterTexts & typeof commonTexts>>> = {
  owner: "filter.owner",
  category: "filter.category",
  record: "filter.record",
  person: "filter.person",
  urgency: "common.urgency",
  age: "filter.age",
  attachment: "filter.attachments",
  unread: "filter.unread",
};

/** A menu that filters a list in one dimension. */
export type FilterMenuProps = {
  readonly list: Pick<ListStart, "scope" | "filter">;
  readonly dimension: MenuDimension;
  readonly onChoose: (value: string, name: string) => void;
};
