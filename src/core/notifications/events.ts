import { notificationsTexts } from "../../texts/en/notifications";
import { type Said, saidOf } from "../../texts/said";

const said = saidOf(notificationsTexts);
/** What a member can be told of, in the order of the settings. */
export const NOTIFICATION_EVENTS = [
  "assigned",
  "mentioned",
  "draft",
  "letter",
  "reply",
  "overdue",
  "person",
  "category",
  "words",
  "rule",
  "proposal",
  "digest",
  "week",
] as const;
export type NotificationEvent = (typeof NOTIFICATION_EVENTS)[number];

/** The name of an event in the settings. */
export const EVENT_NAMES: Readonly<Record<NotificationEvent, Said>> = {
  assigned: said("notifications.somethingIsAssignedToMe"),
  mentioned: said("notifications.aNoteMentionsMe"),
  draft: said("notifications.aDraftIsMineTo"),
  letter: said("notifications.aLetterOfMineIsHeld"),
  reply: said("notifications.somebodyWritesInWhatI"),
  overdue: said("notifications.aReplyOrFollowUp"),
  person: said("notifications.aMessageByAPerson"),
  category: said("notifications.aMessageUnderACategory"),
  words: said("notifications.aMessageWithWordsI"),
  rule: said("notifications.aRuleTellsMe"),
  proposal: said("notifications.aRuleIsProposedWhereI"),
  digest: said("notifications.theDigestOfTheDay"),
  week: said("notifications.theWeekThatIsOver"),
};

/** What can be watched beside one's own matters. */
export const WATCH_KINDS = ["person", "category", "words"] as const;
export type WatchKind = (typeof WATCH_KINDS)[number];
