/** What a member can be told of, in the order of the settings. */
export const NOTIFICATION_EVENTS = [
  "assigned",
  "mentioned",
  "draft",
  "reply",
  "overdue",
  "person",
  "category",
  "words",
  "digest",
  "week",
] as const;
export type NotificationEvent = (typeof NOTIFICATION_EVENTS)[number];

/** The name of an event in the settings. */
export const EVENT_NAMES: Readonly<Record<NotificationEvent, string>> = {
  assigned: "Something is assigned to me",
  mentioned: "A note mentions me",
  draft: "A draft is mine to check, or comes back",
  reply: "Somebody writes in what I own, follow or cover",
  overdue: "A reply or follow-up of mine is overdue",
  person: "A message by a person I watch",
  category: "A message under a category I watch",
  words: "A message with words I watch",
  digest: "The digest of the day",
  week: "The week that is over, of a tray that I lead",
};

/** What can be watched beside one's own matters. */
export const WATCH_KINDS = ["person", "category", "words"] as const;
export type WatchKind = (typeof WATCH_KINDS)[number];
