import { allOf } from "../../../core/kernel/all-of";
import { commonTexts } from "../../../texts/en/common";
import { sortRunTexts } from "../../../texts/en/sort-run";
import { keyCap } from "../../keys/commands";
import { useKeyOf } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import type { ListedRowView } from "../../server/list/list-view.server";
import type { RunView } from "../../server/list/run-view.server";
import { KeyCap } from "../../ui/button";
import { DocketFrame, SidePanel } from "../../ui/layout/side-panel";
import { useSay } from "../../ui/texts/use-say";
import { UrgencyMarks } from "../../ui/urgency-marks";
import { Proposals } from "../conversation/proposals";
import type { PostedDecision } from "../deciding/posted-decision";
import { RowTabs } from "../deciding/row-tabs";
import { OwnerBadge } from "../frame/owner-badge";

const NEXT_SHOWN = 3;

/** What is proposed for the conversation of a run, and what accepting it does. */
export type RunOffer = {
  readonly proposals: readonly ProposalView[];
  readonly onAccept: (decision: PostedDecision) => void;
  readonly onAcceptAll: () => void;
  /** Whether accepting all of it leads on to the next conversation. */
  readonly goesOn: boolean;
};

type RunDocketProps = RunOffer & {
  readonly row: RowView;
  readonly view: RunView | null;
  readonly queue: readonly ListedRowView[];
};

/** The card beside a run: where the conversation stands, what is proposed for it and why, and what comes next. */
export function RunDocket({ row, view, proposals, queue, onAccept, onAcceptAll, goesOn }: RunDocketProps) {
  const say = useSay(sortRunTexts, commonTexts);
  const keyName = useKeyOf();
  const next = queue.filter(({ id }) => id !== row.id).slice(0, NEXT_SHOWN);
  return (
    <SidePanel label={say("common.docket")} className="pb-3 max-lg:hidden">
      <DocketFrame standing={view?.standingName ?? ""} reason={view?.reason ?? ""}>
        <p className="flex min-h-[33px] flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5">
          <UrgencyMarks urgency={row.urgency} />
          <OwnerBadge ownerId={row.ownerId} />
          <span className="flex flex-wrap gap-1">
            <RowTabs ids={row.categoryIds} />
          </span>
          <span className="text-sm text-soft">{row.recordCodes.join(", ") || say("common.notFiled")}</span>
        </p>
        <Proposals proposals={proposals} onAccept={onAccept} />
        {proposals.length > 1 && (
          <button
            type="button"
            aria-keyshortcuts="Enter"
            onClick={onAcceptAll}
            className="flex w-full items-center gap-2 border-t border-hair px-3 py-2 text-soft hover:bg-act-soft hover:text-ink"
          >
            <KeyCap>{keyCap(keyName("accept-all"))}</KeyCap> {say("sortRun.accept", { them: allOf(proposals.length) })}
            {goesOn && say("sortRun.andGoOn")}
          </button>
        )}
        {proposals.length === 0 && view !== null && (
          <p className="border-t border-hair px-3 py-2 text-sm text-soft">
            {say("sortRun.nothingIsProposedTooLittle")}
          </p>
        )}
      </DocketFrame>
      {next.length > 0 && (
        <section className="px-0.5 pt-3 text-sm">
          <h3 className="pb-0.5 font-semibold text-soft">{say("sortRun.nextUp")}</h3>
          <ul className="text-soft">
            {next.map(({ id, who, subject }) => (
              <li key={id} className="truncate">
                {who}: {subject || say("common.noSubject")}
              </li>
            ))}
          </ul>
        </section>
      )}
    </SidePanel>
  );
}
