import {
  Archive,
  Ban,
  BookMarked,
  CalendarCheck,
  CalendarOff,
  Contact,
  FastForward,
  FileInput,
  History,
  Keyboard,
  KeyRound,
  Layers,
  Send,
  Settings2,
  ShieldCheck,
  Tags,
  Trash2,
  Users,
  Workflow,
} from "lucide-react";
import { useNavigate } from "react-router";
import { MENU_ITEM } from "../../ui/menu-look";
import { DropdownMenu } from "../../ui/menu-parts";
import { useTray } from "../frame/tray-data";
import { useStep } from "../frame/use-step";

const PLACES = [
  ["sort-run/to-sort", "Sort run", Layers],
  ["records", "Records", BookMarked],
  ["follow-ups", "Follow-ups", CalendarCheck],
  ["away", "Hours and time off", CalendarOff],
  ["members", "Members", Users],
  ["access-log", "Access log", ShieldCheck],
  ["journal", "Journal", History],
  ["categories", "Categories", Tags],
  ["contacts", "Contacts", Contact],
  ["rules", "Rules", Workflow],
  ["account", "Account", KeyRound],
  ["keys", "Keyboard and preferences", Keyboard],
  ["bin", "Bin", Trash2],
  ["junk", "Junk", Ban],
  ["outgoing", "Outgoing mail", Send],
  ["import", "Import mail", FileInput],
  ["backlog", "Older mail", Archive],
  ["tray-settings", "Tray settings", Settings2],
] as const;

const FOR_LEADS: ReadonlySet<string> = new Set(["access-log"]);

/** The pages of a tray that are no lists, as entries of the member's menu. */
export function MemberPlaces({ slug }: { readonly slug: string }) {
  const navigate = useNavigate();
  const { isDemo, mayLead } = useTray();
  const pages = PLACES.filter(([path]) => mayLead || !FOR_LEADS.has(path)).map(([path, name, Icon]) => (
    <DropdownMenu.Item key={path} className={`${MENU_ITEM} gap-2`} onSelect={() => navigate(`/${slug}/${path}`)}>
      <Icon size={14} aria-hidden /> {name}
    </DropdownMenu.Item>
  ));
  return (
    <>
      {pages}
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
