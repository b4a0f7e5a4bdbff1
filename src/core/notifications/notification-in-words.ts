import { notificationsTexts } from "../../texts/en/notifications";
import { type Said, saidOf } from "../../texts/said";
import { assertNever } from "../kernel/assert-never";
import type { NotificationEvent } from "./events";

const said = saidOf(notificationsTexts);

type Told = {
  readonly event: NotificationEvent;
  /** The colleague who did it, null where nobody did. */
  readonly who: string | null;
  readonly count: number;
  /** Whatever was said with it; of a message, who wrote it. */
  readonly words: string;
};

/** What happened, as the line of a notification, and what was said with it where that is told beside. */
export function notificationInWords(told: Told): { readonly line: Said; readonly beside: string } {
  const ofMessage = ["reply", "person", "category", "words", "rule", "letter"].includes(told.event);
  return { line: lineOf(told), beside: ofMessage ? "" : told.words };
}

function lineOf({ event, who, count, words }: Told): Said {
  const by = who ?? said("notifications.theTray");
  switch (event) {
    case "assigned":
      return said("notifications.assignedToYou", { by, count });
    case "mentioned":
      return said("notifications.wantsYouToSeeThis", { by });
    case "draft":
      return said("notifications.gaveYouADraft", { by });
    case "letter":
      return words === "" ? said("notifications.yourLetterWaits") : said("notifications.yourLetterWaitsAs", { words });
    case "reply":
      return said("notifications.wrote", { words });
    case "overdue":
      return said("notifications.followUpOverdue");
    case "person":
      return said("notifications.wroteWhomYouWatch", { words });
    case "category":
      return said("notifications.wroteUnderACategoryYou", { words });
    case "words":
      return said("notifications.wroteWithWordsYouWatch", { words });
    case "rule":
      return said("notifications.aRuleToldYou", { words });
    case "proposal":
      return said("notifications.aRuleCouldDo", { count });
    case "digest":
      return said("notifications.theDayInShort");
    case "week":
      return said("notifications.theWeekInShort");
    default:
      return assertNever(event);
  }
}
