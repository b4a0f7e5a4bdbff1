import { type Grouping, isDescending, type Order, type SheetView } from "../../../core/lists/sheet-view";

export const GROUPING_NAMES: Readonly<Record<Grouping, string>> = {
  day: "day",
  owner: "owner",
  category: "category",
  record: "record",
  person: "person",
  urgency: "urgency",
  due: "due date",
  standing: "standing",
};

const ORDER_NAMES: Readonly<Record<Order, readonly [descending: string, ascending: string]>> = {
  date: ["Newest first", "Oldest first"],
  due: ["Due last first", "Due first"],
  urgency: ["Most urgent first", "Least urgent first"],
  person: ["By person, Z to A", "By person"],
  subject: ["By subject, Z to A", "By subject"],
  waiting: ["Shortest here first", "Longest here first"],
};

/** An order, in the words of its menu. */
export function nameOfOrder(view: Pick<SheetView, "order" | "reversed">): string {
  return ORDER_NAMES[view.order][isDescending(view) ? 0 : 1];
}

/** What a list is grouped by, in the words of its menu. */
export function nameOfGrouping(grouping: SheetView["grouping"]): string {
  return grouping === null ? "Not grouped" : `Grouped by ${GROUPING_NAMES[grouping]}`;
}
