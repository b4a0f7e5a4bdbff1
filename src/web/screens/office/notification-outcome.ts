import type { NotificationProblems } from "../../server/people/notification-form.server";

/** What the server said to a step: done, or what is wrong by field. */
export type NotificationOutcome = { readonly ok: boolean; readonly problems: NotificationProblems };
