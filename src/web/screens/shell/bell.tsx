import { Bell as Icon } from "lucide-react";
import { useEffect } from "react";
import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { useKeyOf } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

const SHOWN = "common-tray-last-shown";

/** How much one was told and has not read; the browser shows the newest of it, silently and once, where it may. */
export function Bell() {
  const say = useSay(shellTexts, commonTexts);
  const { tray, bell } = useTray();
  const keyName = useKeyOf();
  const { unread, pop } = bell;
  useEffect(() => {
    if (pop === null || !("Notification" in window) || Notification.permission !== "granted") return;
    if (localStorage.getItem(SHOWN) === pop.id) return;
    localStorage.setItem(SHOWN, pop.id);
    const shown = new Notification(pop.title, { body: pop.words, tag: pop.id, silent: true });
    shown.onclick = () => window.focus();
  }, [pop]);
  const label = unread === 0 ? say("shell.notifications") : say("shell.notificationsUnread", { unread });
  return (
    <Link
      to={`/${tray.slug}/notifications`}
      aria-label={label}
      aria-keyshortcuts={keyName("notifications")}
      title={label}
      className="relative grid size-8 shrink-0 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
    >
      <Icon size={17} aria-hidden />
      {unread > 0 && (
        <span
          aria-hidden
          className="absolute -top-0.5 -right-1 min-w-4 rounded-control bg-act px-1 text-center text-[10px] leading-[15px] font-bold text-on-act tabular-nums"
        >
          {unread > 99 ? "99+" : unread}
        </span>
      )}
    </Link>
  );
}
