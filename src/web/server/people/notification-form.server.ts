import Joi from "joi";
import { type NotificationId, trustedId, type WatchId } from "../../../core/kernel/ids";
import { err, ok, type Result } from "../../../core/kernel/result";
import { NOTIFICATION_EVENTS, WATCH_KINDS, type WatchKind } from "../../../core/notifications/events";
import { type NotificationSettings, readNotificationSettings } from "../../../core/notifications/notification-settings";
import {
  chooseNotificationSettings,
  type Deps,
  readNotifications,
  type TrayGrant,
  unwatch,
  type WatchRefusal,
  watch,
} from "../../../operations/index.server";
import { ID } from "../base/fields.server";
import { problemOf, speak } from "../base/say.server";
import { minutesOf, TIME } from "./week-form.server";

/** What is wrong, by the name of the field. */
export type NotificationProblems = Readonly<Record<string, string>>;

/** Something that is done on the page of notifications. */
export type NotificationStep =
  /** Null for all. */
  | { readonly do: "read"; readonly id: NotificationId | null }
  | { readonly do: "settings"; readonly settings: NotificationSettings }
  | { readonly do: "watch"; readonly kind: WatchKind; readonly value: string }
  | { readonly do: "unwatch"; readonly id: WatchId };

const MAX_WATCHED = 200;
const WATCH = Joi.object<{ kind: WatchKind; value: string }>({
  kind: Joi.string()
    .valid(...WATCH_KINDS)
    .required(),
  value: Joi.string().trim().max(MAX_WATCHED).required().messages({
    "string.empty": "people.sayWhatIsToBe",
    "any.required": "people.sayWhatIsToBe",
    "string.max": "people.atMostCharacters",
  }),
});

/** The posted step, or what is wrong with its fields. */
export function readNotificationStep(form: FormData): Result<NotificationStep, NotificationProblems> {
  switch (form.get("do")) {
    case "read": {
      const { value, error } = ID.validate(form.get("id") ?? undefined);
      return error === undefined
        ? ok({ do: "read", id: value === undefined ? null : trustedId<NotificationId>(value) })
        : err({ id: speak("server.noNotification") });
    }
    case "unwatch": {
      const { value, error } = ID.required().validate(form.get("id") ?? undefined);
      return error === undefined
        ? ok({ do: "unwatch", id: trustedId<WatchId>(value) })
        : err({ id: speak("server.nothingWatched") });
    }
    case "watch": {
      const { value, error } = WATCH.validate(Object.fromEntries(form), { stripUnknown: true });
      return error === undefined ? ok({ do: "watch", ...value }) : err({ value: problemOf(error) });
    }
    case "settings":
      return readChoices(form);
    default:
      return err({ do: speak("people.thatIsNothingThatCan") });
  }
}

function readChoices(form: FormData): Result<NotificationStep, NotificationProblems> {
  const problems: Record<string, string> = {};
  const time = (name: string): number | null => {
    const given = String(form.get(name) ?? "").trim();
    if (given === "") return null;
    const { value, error } = TIME.validate(given);
    if (error !== undefined) problems[name] = problemOf(error);
    return error === undefined ? minutesOf(value) : null;
  };
  const [from, to, digestAt] = [time("quiet-from"), time("quiet-to"), time("digest-at")];
  if ((from === null) !== (to === null) && Object.keys(problems).length === 0)
    problems["quiet-to"] = speak("people.quietHoursHaveABeginning");
  if (Object.keys(problems).length > 0) return err(problems);
  const events = NOTIFICATION_EVENTS.map((event) => [
    event,
    { list: form.get(`list-${event}`) !== null, browser: form.get(`browser-${event}`) !== null },
  ]);
  const quiet = from === null || to === null ? null : { from, to };
  return ok({
    do: "settings",
    settings: readNotificationSettings({ events: Object.fromEntries(events), quiet, digestAt }),
  });
}

/** Carries a step out. */
export async function carryNotificationStep(
  deps: Deps,
  grant: TrayGrant,
  step: NotificationStep,
): Promise<Result<unknown, WatchRefusal>> {
  switch (step.do) {
    case "read":
      return ok(await readNotifications(deps, grant, step.id));
    case "settings":
      return ok(await chooseNotificationSettings(deps, grant, step.settings));
    case "watch":
      return watch(deps, grant, step.kind, step.value);
    case "unwatch":
      return (await unwatch(deps, grant, step.id)) ? ok(null) : err({ kind: "nothing-to-undo" });
  }
}
