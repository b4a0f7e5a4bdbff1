import { Link } from "react-router";
import { notificationInWords } from "../../../core/notifications/notification-in-words";
import { isStandingKind } from "../../../core/standing/standing";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { NotificationsView } from "../../server/people/notification-view.server";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";

type Told = NotificationsView[number];

/** What a member was told, by day; each leads to its conversation, which counts as read by that. */
export function NotificationList({ told }: { told: readonly Told[] }) {
  const say = useSay(officeTexts);
  if (told.length === 0) {
    return <p className="px-4 py-6 text-soft">{say("office.noNotificationsYetWhatIs")}</p>;
  }
  const days = [...new Set(told.map(({ day }) => day))];
  return (
    <div className="pb-6">
      {days.map((day) => (
        <section key={day} aria-label={day}>
          <h2 className="border-b border-hair bg-ground px-4 py-1 text-sm font-semibold text-soft">{day}</h2>
          <ul>
            {told
              .filter((one) => one.day === day)
              .map((one) => (
                <NotificationLine key={one.id} told={one} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function NotificationLine({ told }: { told: Told }) {
  const say = useSay(commonTexts);
  const { members } = useTray();
  const { event, by, count, words, subject, isRead, when } = told;
  const who = members.find(({ id }) => id === by)?.name ?? null;
  const { line, beside } = notificationInWords({ event, who, count, words });
  return (
    <li className="relative grid grid-cols-[12px_30px_minmax(0,1fr)_auto] items-start gap-x-2.5 border-b border-hair px-4 py-2 hover:bg-ground/70">
      <span className="pt-[7px]">
        {!isRead && (
          <span role="img" aria-label={say("common.unread")} className="block size-[7px] rounded-full bg-act" />
        )}
      </span>
      <span className="pt-0.5">{by !== null && <OwnerBadge ownerId={by} />}</span>
      <span className="min-w-0">
        <span className={`block ${isRead ? "" : "font-semibold"}`}>
          {say(line)}
          {beside !== "" && (
            <span className="font-normal text-soft">
              {event === "digest" || event === "week" ? `: ${beside}` : ` “${beside}”`}
            </span>
          )}
        </span>
        <NotificationLink told={told} words={subject === null ? null : subject || say("common.noSubject")} />
      </span>
      <span className="text-sm whitespace-nowrap text-soft">{when}</span>
    </li>
  );
}

function NotificationLink({ told, words }: { told: Told; words: string | null }) {
  const say = useSay(officeTexts);
  const { tray, member } = useTray();
  const look = "block truncate font-serif text-[14.5px] after:absolute after:inset-0 hover:underline";
  const { conversationId, standing, event } = told;
  if (conversationId !== null && standing !== null && isStandingKind(standing)) {
    return (
      <Link to={`/${tray.slug}/${standing}/${conversationId}`} className={look}>
        {words}
      </Link>
    );
  }
  const own = { to: `open?owner=${member.id}`, name: say("office.allThatIsMine") };
  const places: Partial<Record<Told["event"], typeof own>> = {
    week: { to: "loose-ends", name: say("office.allLooseEnds") },
    letter: { to: "going-later", name: say("office.whatIsToGoLater") },
    proposal: { to: "rules", name: say("office.whatIsProposed") },
    assigned: own,
    digest: own,
  };
  const place = places[event];
  if (place === undefined) return null;
  return (
    <Link to={`/${tray.slug}/${place.to}`} className={look}>
      {place.name}
    </Link>
  );
}
