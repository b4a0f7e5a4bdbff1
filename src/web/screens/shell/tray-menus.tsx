import { CalendarOff, FastForward, Keyboard, Settings2 } from "lucide-react";
import { useNavigate } from "react-router";
import { shellTexts } from "../../../texts/en/shell";
import { MENU_ITEM } from "../../ui/menu-look";
import { DropdownMenu } from "../../ui/menu-parts";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { DAY_PAGES, saidPages } from "./tray-pages";

/** The pages of the day's work, as entries of a menu. */
export function DayMenuItems({ slug }: { readonly slug: string }) {
  const navigate = useNavigate();
  const say = useSay(shellTexts);
  return saidPages(say, DAY_PAGES).map(({ path, name, about }) => (
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
  ["settings", "shell.settings", Settings2],
  ["away", "shell.hoursAndTimeOff", CalendarOff],
  ["keys", "shell.keyboard", Keyboard],
] as const;

/** What is asked for most beside the work, as entries of the member's menu. */
export function MemberMenuItems({ slug }: { readonly slug: string }) {
  const say = useSay(shellTexts);
  const navigate = useNavigate();
  const { isDemo } = useTray();
  return (
    <>
      {OWN.map(([path, name, Icon]) => (
        <DropdownMenu.Item key={path} className={`${MENU_ITEM} gap-2`} onSelect={() => navigate(`/${slug}/${path}`)}>
          <Icon size={14} aria-hidden /> {say(name)}
        </DropdownMenu.Item>
      ))}
      {isDemo && <TimePasses />}
    </>
  );
}

const SPANS = [
  ["hour", "shell.demoAdvanceOneHour"],
  ["opening", "shell.demoAdvanceToTheNext"],
  ["three-days", "shell.demoAdvanceThreeDays"],
] as const;

/** In the demo: what would take days can be watched. */
function TimePasses() {
  const say = useSay(shellTexts);
  const { post } = useFormAction("advance-clock");
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
          <FastForward size={14} aria-hidden /> {say(name)}
        </DropdownMenu.Item>
      ))}
    </>
  );
}
