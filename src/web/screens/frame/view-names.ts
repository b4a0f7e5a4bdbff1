import { type Grouping, isDescending, type Order, type SheetView } from "../../../core/lists/sheet-view";
import type { frameTexts } from "../../../texts/en/frame";
import type { PlainKey, Say } from "../../../texts/say";

type FrameKey = PlainKey<typeof frameTexts>;

export const GROUPING_NAMES: Readonly<Record<Grouping, FrameKey>> = {
  day: "frame.day",
  owner: "frame.owner",
  category: "frame.category",
  record: "frame.record",
  person: "frame.person",
  urgency: "frame.urgency",
  due: "frame.dueDate",
  standing: "frame.standing",
};

const ORDER_NAMES: Readonly<Record<Order, readonly [descending: FrameKey, ascending: FrameKey]>> = {
  date: ["frame.newestFirst", "frame.oldestFirst"],
  due: ["frame.dueLastFirst", "frame.dueFirst"],
  urgency: ["frame.mostUrgentFirst", "frame.leastUrgentFirst"],
  person: ["frame.byPersonZToA", "frame.byPerson"],
  subject: ["frame.bySubjectZToA", "frame.bySubject"],
  waiting: ["frame.shortestHereFirst", "frame.longestHereFirst"],
};

/** An order, in the words of its menu. */
export function nameOfOrder(say: Say<typeof frameTexts>, view: Pick<SheetView, "order" | "reversed">): string {
  return say(ORDER_NAMES[view.order][isDescending(view) ? 0 : 1]);
}

/** What a list is grouped by, in the words of its menu. */
export function nameOfGrouping(say: Say<typeof frameTexts>, grouping: SheetView["grouping"]): string {
  return grouping === null ? say("frame.notGrouped") : say("frame.groupedBy", { name: say(GROUPING_NAMES[grouping]) });
}
