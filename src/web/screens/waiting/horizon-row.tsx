import { Link } from "react-router";
import { DAY } from "../../../core/kernel/instant";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import type { WaitingView } from "../../server/waiting/waiting-view.server";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import { HORIZON_TICKS, HorizonLine, horizonX } from "./horizon-line";

const GRID =
  "grid grid-cols-[22px_minmax(0,1fr)_auto_30px] items-center gap-x-3 lg:grid-cols-[22px_170px_minmax(0,1fr)_minmax(0,1.6fr)_150px_74px_50px]";

/** What the columns are, and the days of the axis. */
export function HorizonHead({ now }: { readonly now: number }) {
  const say = useSay(waitingTexts);
  return (
    <div aria-hidden className={`${GRID} sticky top-0 z-10 h-7 border-b border-rule bg-paper px-3 text-sm text-soft`}>
      <span />
      <span>{say("waiting.weWaitFor")}</span>
      <span className="max-lg:hidden">{say("waiting.whatWeAsked")}</span>
      <span className="relative hidden h-full lg:block">
        {HORIZON_TICKS.map(([days, words]) => (
          <span
            key={days}
            className="absolute top-1 ltr:-translate-x-1/2 rtl:translate-x-1/2 whitespace-nowrap"
            style={{ insetInlineStart: `${horizonX(now + days * DAY, now)}%` }}
          >
            {say(words)}
          </span>
        ))}
      </span>
      <span className="text-end">{say("waiting.expected")}</span>
      <span className="hidden lg:block">{say("waiting.record")}</span>
      <span>{say("waiting.owner")}</span>
    </div>
  );
}

type HorizonRowProps = {
  readonly view: WaitingView;
  readonly now: number;
  readonly isCursor: boolean;
  readonly isSelected: boolean;
  readonly onChoose: () => void;
  readonly onCallOff: () => void;
};

/** One thing that is waited for. */
export function HorizonRow({ view, now, isCursor, isSelected, onChoose, onCallOff }: HorizonRowProps) {
  const say = useSay(waitingTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  const { row, reminder, expected, overWords, chance } = view;
  const due = overWords ?? (chance === null || chance === 0 ? expected : say("waiting.today", { expected, chance }));
  return (
    <li
      aria-current={isCursor ? "true" : undefined}
      className={`${GRID} relative border-b border-hair px-3 max-lg:py-1 lg:h-11 ${isSelected ? "bg-act-soft" : isCursor ? "bg-ground shadow-[inset_3px_0_0_var(--act)]" : "hover:bg-ground/60"}`}
    >
      <input
        type="checkbox"
        aria-label={say("waiting.select", { who: row.who, subject: row.subject })}
        checked={isSelected}
        disabled={!mayDecide}
        onChange={onChoose}
        className="size-[14px] accent-act max-lg:row-span-2"
      />
      <span className={`truncate ${overWords === null ? "" : "font-[650]"}`}>{row.who}</span>
      <span className="min-w-0 max-lg:col-start-2 max-lg:row-start-2">
        <Link to={`/${tray.slug}/waiting/${row.id}`} className="block truncate font-serif hover:text-act">
          {row.subject || say("common.noSubject")}
        </Link>
        {reminder !== null && (
          <span className="block truncate text-xs text-soft">
            {say("waiting.reminder", { reminder })}{" "}
            {mayDecide && (
              <button type="button" onClick={onCallOff} className="text-act hover:underline">
                {say("waiting.callItOff")}
              </button>
            )}
          </span>
        )}
      </span>
      <span className="hidden h-full lg:block">
        <HorizonLine view={view} now={now} />
      </span>
      <span
        className={`text-end text-sm max-lg:col-start-3 max-lg:row-span-2 max-lg:row-start-1 ${overWords === null ? "text-soft" : "font-semibold text-late"}`}
      >
        {due}
      </span>
      <span className="hidden truncate text-sm text-soft lg:block">{row.recordCodes.join(", ")}</span>
      <span className="max-lg:col-start-4 max-lg:row-span-2 max-lg:row-start-1">
        <OwnerBadge ownerId={row.ownerId} isCovered={row.isCovered} />
      </span>
    </li>
  );
}
