import { CalendarOff, FastForward, Keyboard, Settings2 } from "lucide-react";
import { useNavigate } from "react-router";
import { MENU_ITEM } from "../../ui/menu-look";
import { DropdownMenu } from "../../ui/menu-parts";
import { useTray } from "../frame/tray-data";
import { useStep } from "../frame/use-step";
import { DAY_PAGES } from "./tray-pages";

/** The pages of the day's work, as entries of a menu. */
export function DayPlaces({ slug }: { readonly slug: string }) {
  const navigate = useNavigate();
  return DAY_PAGES.map(({ path, name, about }) => (
    <DropdownMenu.Item
      key={path}
      className={`${MENU_ITEM} flex-col !items-start !gap-0`}
      onSelect={() => navigate(`/${slug}/${path}`)}
    >
      <span>{name}</span>
      <span className="text-sm text-soft">{about}</span>
    </DropdownMenu.Item>
  ));
}

const OWN = [
  ["settings", "Settings", Settings2],
  ["away", "Hours and time off", CalendarOff],
  ["keys", "Keyboard", Keyboard],
] as const;

/** What is asked for most beside the work, as entries of the member's menu. */
export function MemberPlaces({ slug }: { readonly slug: string }) {
  const navigate = useNavigate();
  const { isDemo } = useTray();
  return (
    <>
      {OWN.map(([path, name, Icon]) => (
        <DropdownMenu.Item key={path} className={`${MENU_ITEM} gap-2`} onSelect={() => navigate(`/${slug}/${path}`)}>
          <Icon size={14} aria-hidden /> {name}
        </DropdownMenu.Item>
      ))}
      {isDemo && <TimePasses />}
    </>
  );
}

const SPANS = [
  ["hour", "Demo: advance one hour"],
  ["opening", "Demo: advance to the next opening"],
  ["three-days", "Demo: advance three days"],
] as const;

/** In the demo: what would take days can be watched. */
function TimePasses() {
  const { post } = useStep("pass-time");
  return (
    <>
      <DropdownMenu.Separator className="my-1 border-t border-hair" />
      {SPANS.map(([span, name]) => (
        <DropdownMenu.Item
          key={span}
          className={`${MENU_ITEM} gap-2`}
          onSelect={(event) => {
            // It stays open: one hour is often followed by another.
            event.preventDefault();
            post({ span });
          }}
        >
          <FastForward size={14} aria-hidden /> {name}
        </DropdownMenu.Item>
      ))}
    </>
  );
}
