import { tz } from "@date-fns/tz";
import { startOfDay } from "date-fns";
import { readEmailAddress } from "../../core/kernel/email-address";
import {
  type CategoryId,
  type ConversationId,
  type MemberId,
  type NotificationId,
  trustedId,
  type WatchId,
} from "../../core/kernel/ids";
import { DAY, type Instant, instantOf, later } from "../../core/kernel/instant";
import { err, ok, type Result } from "../../core/kernel/result";
import type { WatchKind } from "../../core/notifications/events";
import {
  digestDue,
  eventsNotifiedBy,
  isQuiet,
  type NotificationSettings,
  readNotificationSettings,
} from "../../core/notifications/notification-settings";
import {
  addWatch,
  grantsOf,
  type KeptWatch,
  type Member,
  removeWatch,
  saveSetting,
  settingOfEverybody,
  type TrayGrant,
  watchesOf,
} from "../../storage/access/index";
import { inTransaction } from "../../storage/base/index";
import {
  addNotifications,
  type ListedNotification,
  markNotificationsRead,
  markNotificationsReadUpTo,
  type NewNotification,
  type Notification,
  notificationsOf,
  unreadNotifications,
} from "../../storage/conversation/index";
import { categoriesOf } from "../../storage/facts/index";
import { type Desk, overdueSince, workloads } from "../../storage/lists/index";
import { notificationsTexts } from "../../texts/en/notifications";
import { saidOf, type Wording } from "../../texts/said";
import type { Deps } from "../base/deps";
import type { Refusal } from "../refusals/refusal";
import { chosenBy, TELLING } from "./settings";

const said = saidOf(notificationsTexts);

const SHOWN = 200;

/** How a member wants to be told. */
export async function notificationSettingsOf(
  deps: Deps,
  { memberId }: Pick<TrayGrant, "memberId">,
): Promise<NotificationSettings> {
  return readNotificationSettings((await chosenBy(deps, memberId, [TELLING])).get(TELLING));
}

/** Remembers how a member wants to be told. */
export function chooseNotificationSettings(
  deps: Deps,
  { memberId }: TrayGrant,
  settings: NotificationSettings,
): Promise<void> {
  return saveSetting(deps.db, memberId, TELLING, settings);
}

/** What a member is told in a tray, the newest first. */
export async function listNotifications(deps: Deps, grant: TrayGrant): Promise<ListedNotification[]> {
  const events = eventsNotifiedBy(await notificationSettingsOf(deps, grant), "list");
  return notificationsOf(deps.db, grant.memberId, grant.tray.id, events, SHOWN);
}

/** How much a member has not read of what she is told; the newest of it where the browser may show it now. */
export type Bell = { readonly unread: number; readonly pop: Notification | null };

export async function bellOf(
  deps: Deps,
  grant: TrayGrant,
  member: Member,
  settings: NotificationSettings,
): Promise<Bell> {
  const events = eventsNotifiedBy(settings, "list");
  const { count, newest } = await unreadNotifications(deps.db, grant.memberId, grant.tray.id, events);
  const mayPop =
    newest !== null && settings.events[newest.event].browser && !isQuiet(settings, deps.now(), member.timeZone);
  return { unread: count, pop: mayPop ? newest : null };
}

/** Marks as read what tells of a conversation, which one has opened. */
export function readOfConversation(deps: Deps, { memberId, tray }: TrayGrant, id: ConversationId): Promise<void> {
  return markNotificationsRead(deps.db, memberId, { trayId: tray.id, conversationId: id }, deps.now());
}

/** Marks one notification as read, or all (null). */
export function readNotifications(deps: Deps, { memberId, tray }: TrayGrant, id: NotificationId | null): Promise<void> {
  const which = id === null ? { trayId: tray.id, all: true as const } : { trayId: tray.id, id };
  return markNotificationsRead(deps.db, memberId, which, deps.now());
}

/** Marks as read what a member was told up to a moment, in all her trays. */
export function markNotificationsReadBefore(deps: Deps, memberId: MemberId, upTo: Instant): Promise<void> {
  return markNotificationsReadUpTo(deps.db, memberId, upTo);
}

/** What a member watches in a tray. */
export function watchedBy(deps: Deps, { memberId, tray }: TrayGrant): Promise<KeptWatch[]> {
  return watchesOf(deps.db, memberId, tray.id);
}

export type WatchRefusal = { readonly kind: "no-address" } | { readonly kind: "watched-already" } | Refusal;

/** Watches a person (an address or `@domain`), a category or words in a tray. */
export async function watch(
  deps: Deps,
  grant: TrayGrant,
  kind: WatchKind,
  given: string,
): Promise<Result<WatchId, WatchRefusal>> {
  const value = kind === "words" ? given.trim() : given.trim().toLowerCase();
  if (kind === "person" && readEmailAddress(value.startsWith("@") ? `x${value}` : value) === null)
    return err({ kind: "no-address" });
  if (kind === "category") {
    const known = (await categoriesOf(deps.db, grant.tray.id)).some(({ id }) => id === trustedId<CategoryId>(value));
    if (!known) return err({ kind: "no-such", what: "category" });
  }
  const id = trustedId<WatchId>(deps.newId());
  const kept = { id, memberId: grant.memberId, trayId: grant.tray.id, kind, value };
  return (await addWatch(deps.db, kept, deps.now())) ? ok(id) : err({ kind: "watched-already" });
}

/** Watches something no more. */
export function unwatch(deps: Deps, { memberId, tray }: TrayGrant, id: WatchId): Promise<boolean> {
  return removeWatch(deps.db, memberId, tray.id, id);
}

// What was overdue longer ago when the server came up is in the lists; telling of it now would only disturb.
const OVERDUE_WITHIN = 3 * DAY;
const MAX_AT_ONCE = 500;

/** Tells of replies and follow-ups whose day is over, each once; gives how many. */
export async function notifyOfOverdue(deps: Deps): Promise<number> {
  const now = deps.now();
  const overdue = await overdueSince(deps.db, later(now, -OVERDUE_WITHIN), now, MAX_AT_ONCE);
  const all = overdue.map(
    ({ memberId, trayId, conversationId, text, about }): NewNotification => ({
      id: trustedId<NotificationId>(deps.newId()),
      memberId,
      trayId,
      conversationId,
      at: now,
      event: "overdue",
      by: null,
      count: 1,
      words: text,
      about,
    }),
  );
  await addNotifications(deps.db, all);
  for (const { trayId, conversationId } of overdue) deps.publishChange({ trayId, conversationId });
  return all.length;
}

/** Sums the day up for everybody who wants it and whose time has come, once a day and tray; gives how many. */
export async function notifyDigests(deps: Deps): Promise<number> {
  const now = deps.now();
  let count = 0;
  for (const { member, value } of await settingOfEverybody(deps.db, TELLING)) {
    const day = digestDue(readNotificationSettings(value), now, member.timeZone);
    if (day === null) continue;
    for (const grant of await grantsOf(deps.db, member.id, now))
      count += (await digest(deps, grant, member, day)) ? 1 : 0;
  }
  return count;
}

async function digest(deps: Deps, grant: TrayGrant, member: Member, day: string): Promise<boolean> {
  const about = `digest:${day}:${grant.tray.id}`;
  const now = deps.now();
  return inTransaction(deps.db, async (trx) => {
    const told = await notificationsOf(trx, member.id, grant.tray.id, ["digest"], 1);
    if (told[0] !== undefined && told[0].at >= startOfDayOf(member, now)) return false;
    const desks = await workloads(trx, grant, now, startOfDayOf(member, now));
    const words = digestInWords(desks, member);
    const id = trustedId<NotificationId>(deps.newId());
    const common = { id, memberId: member.id, trayId: grant.tray.id, conversationId: null, at: now, by: null };
    await addNotifications(trx, [{ ...common, event: "digest", count: 1, words, about }]);
    return true;
  }).then((isNew) => {
    if (isNew) deps.publishChange({ trayId: grant.tray.id, conversationId: null });
    return isNew;
  });
}

function startOfDayOf(member: Member, now: Instant): Instant {
  return instantOf(startOfDay(now, { in: tz(member.timeZone) }));
}

function digestInWords(desks: readonly Desk[], member: Member): Wording {
  const own = desks.find(({ memberId }) => memberId === member.id);
  const nobodys = desks.find(({ memberId }) => memberId === null);
  const parts = [
    said("notifications.toDo", { count: (own?.ourMove ?? 0) + (own?.toSort ?? 0) }),
    said("notifications.repliesOverdue", { count: own?.overdue ?? 0 }),
    said("notifications.followUpsDue", { count: own?.followUpsDue ?? 0 }),
    said("notifications.withNobody", { count: (nobodys?.toSort ?? 0) + (nobodys?.ourMove ?? 0) }),
  ];
  return { all: parts, by: "comma" };
}

/** Who has what in a tray, for those who lead it. */
export async function overviewOf(deps: Deps, grant: TrayGrant, member: Member): Promise<Result<Desk[], Refusal>> {
  if (grant.role !== "lead") return err({ kind: "leads-only" });
  const now = deps.now();
  return ok(await workloads(deps.db, grant, now, startOfDayOf(member, now)));
}
