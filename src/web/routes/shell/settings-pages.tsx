import { ChevronLeft } from "lucide-react";
import { Link, Outlet, useLocation } from "react-router";
import { shellTexts } from "../../../texts/en/shell";
import { useTray } from "../../screens/frame/tray-data";
import { SettingsIndex } from "../../screens/shell/settings-index";
import { useSay } from "../../ui/texts/use-say";

/** The pages of settings, each beside the index of all; on a phone the index is a page of its own. */
export default function SettingsPages() {
  const say = useSay(shellTexts);
  const { tray } = useTray();
  const { pathname } = useLocation();
  const index = `/${tray.slug}/settings`;
  return (
    <div className="flex min-h-0 flex-1 max-md:flex-col md:[&>main]:ml-0 md:[&>main]:rounded-tl-none">
      <SettingsIndex />
      {pathname !== index && (
        <Link to={index} className="mx-3 mt-1.5 flex min-h-6 items-center gap-0.5 text-act md:hidden">
          <ChevronLeft size={16} aria-hidden /> {say("shell.settings")}
        </Link>
      )}
      <Outlet />
    </div>
  );
}
