import { frameTexts } from "../../../texts/en/frame";
import { useSay } from "../../ui/texts/use-say";
/** How much a colleague has on the desk against the others, and how many conversations that is. */
export function LoadBar({ load, open }: { load: number; open: number }) {
  const say = useSay(frameTexts);
  const words = say("frame.openConversations", { open });
  return (
    <span role="img" aria-label={words} title={words} className="flex items-center gap-1.5 text-sm text-soft">
      <span className="block h-[5px] w-12 bg-sunk">
        <span className="block h-full bg-soft" style={{ width: `${Math.round(load * 100)}%` }} />
      </span>
      <span className="w-6 text-end tabular-nums">{open}</span>
    </span>
  );
}
