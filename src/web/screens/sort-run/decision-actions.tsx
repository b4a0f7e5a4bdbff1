import type { ReactNode } from "react";
import { commonTexts } from "../../../texts/en/common";
import { sortRunTexts } from "../../../texts/en/sort-run";
import { type CommandId, keyCap } from "../../keys/commands";
import { useKeyOf } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import type { ProposalView } from "../../server/conversation/proposal-view.server";
import { KeyCap } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import type { DialogKind } from "../deciding/dialog-props";

type WaysOutProps = {
  readonly row: RowView;
  readonly proposals: readonly ProposalView[];
  readonly onAnswer: () => void;
  readonly ask: (dialog: DialogKind) => void;
  readonly settle: () => void;
  readonly bin: () => void;
};

/** The five ways out of a sort run, each with what it would likely be. */
export function DecisionActions({ row, proposals, onAnswer, ask, settle, bin }: WaysOutProps) {
  const say = useSay(sortRunTexts, commonTexts);
  const proposed = (kind: ProposalView["decision"]["kind"]) => proposals.find(({ decision }) => decision.kind === kind);
  const owner = proposed("assign")?.title.replace(say("sortRun.assignTo"), "");
  const record = row.recordCodes[0] ?? proposed("file")?.title.split(" ")[0];
  return (
    <div
      role="toolbar"
      aria-label={say("sortRun.waysOut")}
      className="grid shrink-0 grid-cols-6 gap-2 px-2 py-2.5 sm:grid-cols-5 sm:gap-2.5 sm:px-4 sm:py-3"
    >
      <Way command="answer" filled hint={say("sortRun.nowFromHere")} onClick={onAnswer}>
        {say("common.answer")}
      </Way>
      <Way
        command="assign"
        hint={owner === undefined ? say("sortRun.toAColleague") : `${owner}?`}
        onClick={() => ask("assign")}
      >
        {say("common.assign")}
      </Way>
      <Way command="rest" second="follow-up" hint={say("sortRun.untilATimeOrFor")} onClick={() => ask("rest")}>
        {say("sortRun.restOrFollowUp")}
      </Way>
      <Way
        command="settle"
        second="file"
        hint={record === undefined ? say("sortRun.fileFirstWithItsKey") : `${record}?`}
        onClick={settle}
      >
        {say("common.fileAndSettle")}
      </Way>
      <Way command="bin" hint={say("sortRun.canBeBroughtBack")} onClick={bin}>
        {say("common.bin")}
      </Way>
    </div>
  );
}

type WayProps = {
  readonly command: CommandId;
  readonly second?: CommandId;
  readonly filled?: boolean;
  readonly hint: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
};

function Way({ command, second, filled = false, hint, onClick, children }: WayProps) {
  const keyName = useKeyOf();
  const look = filled ? "border-act bg-act text-on-act hover:brightness-110" : "border-rule bg-paper hover:border-act";
  return (
    <button
      type="button"
      aria-keyshortcuts={keyName(command)}
      onClick={onClick}
      className={`flex min-h-11 min-w-0 flex-col justify-center rounded-control border px-2 py-1.5 text-center max-sm:col-span-2 max-sm:nth-[n+4]:col-span-3 sm:h-[58px] sm:justify-between sm:px-3.5 sm:py-2 sm:text-left ${look}`}
    >
      <span className="flex w-full items-baseline justify-center gap-2 sm:justify-between">
        <b className="font-semibold max-sm:leading-[18px] sm:truncate">{children}</b>
        <span className="hidden gap-1 sm:flex">
          {second !== undefined && <KeyCap>{keyCap(keyName(second))}</KeyCap>}
          <KeyCap>{keyCap(keyName(command))}</KeyCap>
        </span>
      </span>
      <span className={`hidden w-full truncate text-sm sm:block ${filled ? "" : "text-soft"}`}>{hint}</span>
    </button>
  );
}
