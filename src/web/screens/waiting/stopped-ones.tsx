import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import type { LooseEndsPart } from "../../server/waiting/loose-ends-view.server";
import { BUTTON_LINK } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

const PAGES = { rule: "rules", answer: "automatic-answers" } as const;

/** What is switched on and does nothing, as it names what is no more: why, and the way to change it. */
export function StoppedOnes({ stopped }: Pick<LooseEndsPart, "stopped">) {
  const say = useSay(waitingTexts, commonTexts);
  const { tray } = useTray();
  if (stopped.length === 0) return null;
  return (
    <section aria-label={say("waiting.stoppedRules")}>
      <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-4 py-0.5 text-sm font-semibold">
        {say("waiting.stoppedRules")} <span className="font-normal text-soft">{stopped.length}</span>
      </h2>
      <ul>
        {stopped.map(({ what, id, name, words }) => (
          <li key={id} className="flex min-h-11 flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair px-4 py-1">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-serif">{name}</span>
              <span className="block text-sm text-soft">{words}</span>
            </span>
            <Link
              to={`/${tray.slug}/${PAGES[what]}/${id}`}
              aria-label={say("common.changeOf", { name })}
              className={`${BUTTON_LINK} h-7! px-2! text-sm`}
            >
              {say("common.change")}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
