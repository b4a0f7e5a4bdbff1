import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { keysTexts } from "../../../texts/en/keys";
import { shellTexts } from "../../../texts/en/shell";
import { COMMAND_GROUPS, COMMANDS, type CommandId, keyCap } from "../../keys/commands";
import { useKeyDesk, useKeyOf } from "../../keys/key-desk";
import { Dialog } from "../../ui/dialog";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** The keys that work here and now, by group. */
export default function KeyList({ onClose }: { onClose: () => void }) {
  const say = useSay(shellTexts, keysTexts, commonTexts);
  const { tray } = useTray();
  const keyName = useKeyOf();
  const here = [...useKeyDesk().available().keys()];
  const inGroup = (group: string) => here.filter((id) => COMMANDS[id].group === group);
  return (
    <Dialog open onOpenChange={(open) => !open && onClose()} title={say("shell.keysThatWorkHere")} size="wide">
      <div className="grid gap-x-8 gap-y-4 overflow-y-auto px-4 py-3 sm:grid-cols-2">
        {Object.entries(COMMAND_GROUPS)
          .filter(([group]) => inGroup(group).length > 0)
          .map(([group, name]) => (
            <section key={group} className={group === "deciding" ? "sm:row-span-2" : ""}>
              <h3 className="pb-1 text-sm font-semibold text-soft">{say(name)}</h3>
              <dl className="grid grid-cols-[44px_1fr] gap-y-1">
                {inGroup(group).map((id: CommandId) => (
                  <div key={id} className="contents">
                    <dt className="font-semibold">{keyCap(keyName(id))}</dt>
                    <dd className="text-soft">{say(COMMANDS[id].name)}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
      </div>
      <p className="border-t border-hair bg-ground px-4 py-2.5 text-sm">
        <Link to={`/${tray.slug}/keys`} onClick={onClose} className="text-act underline-offset-2 hover:underline">
          {say("shell.giveCommandsOtherKeys")}
        </Link>
      </p>
    </Dialog>
  );
}
