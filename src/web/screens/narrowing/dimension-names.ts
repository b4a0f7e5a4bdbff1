import type { MenuDimension } from "../../../core/lists/narrowing";
import type { commonTexts } from "../../../texts/en/common";
import type { narrowingTexts } from "../../../texts/en/narrowing";
import type { PlainKey } from "../../../texts/say";
import type { ListStart } from "../../server/list/list-view.server";

export const DIMENSION_NAMES: Readonly<Record<MenuDimension, PlainKey<typeof narrowingTexts & typeof commonTexts>>> = {
  owner: "narrowing.owner",
  category: "narrowing.category",
  record: "narrowing.record",
  person: "narrowing.person",
  urgency: "common.urgency",
  age: "narrowing.age",
  attachment: "narrowing.attachments",
  unread: "narrowing.unread",
};

/** A menu that narrows a list in one dimension. */
export type NarrowMenuProps = {
  readonly list: Pick<ListStart, "scope" | "narrowing">;
  readonly dimension: MenuDimension;
  readonly onChoose: (value: string, name: string) => void;
};
