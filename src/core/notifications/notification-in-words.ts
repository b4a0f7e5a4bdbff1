import { assertNever } from "../kernel/assert-never";
import type { NotificationEvent } from "./events";

type Told = {
  readonly event: NotificationEvent;
  /** The colleague who did it, null where nobody did. */
  readonly who: string | null;
  readonly count: number;
  /** Whatever was said with it; of a message, who wrote it. */
  readonly words: string;
};

/** What happened, as the line of a notification, and what was said with it where that is told beside. */
export function notificationInWords(told: Told): { readonly line: string; readonly beside: string } {
  const ofMessage = ["reply", "person", "category", "words"].includes(told.event);
  return { line: lineOf(told), beside: ofMessage ? "" : told.words };
}

function lineOf({ event, who, count, words }: Told): string {
  const by = who ?? "The tray";
  switch (event) {
    case "assigned":
      return count === 1 ? `${by} assigned this to you` : `${by} assigned ${count} conversations to you`;
    case "mentioned":
      return `${by} wants you to see this`;
    case "draft":
      return `${by} gave you a draft`;
    case "reply":
      return `${words} wrote`;
    case "overdue":
      return "Follow-up overdue";
    case "person":
      return `${words} wrote, whom you watch`;
    case "category":
      return `${words} wrote under a category you watch`;
    case "words":
      return `${words} wrote with words you watch`;
    case "digest":
      return "The day in short";
    case "week":
      return "The week in short";
    default:
      return assertNever(event);
  }
}
