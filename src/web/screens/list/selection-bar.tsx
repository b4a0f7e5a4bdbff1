import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Scope } from "../../../core/lists/scope";
import { MAX_EXAMPLES } from "../../../core/rule-learning/learn-actions";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { type CommandId, keyCap } from "../../keys/commands";
import { useKeyOf } from "../../keys/key-desk";
import { BUTTON_LINK, Button, KeyCap } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import type { DialogKind } from "../deciding/dialog-props";
import { useTray } from "../frame/tray-data";
import type { BareDecision } from "./row-actions";
import type { Selection } from "./selection";

type SelectionBarProps = {
  readonly selection: Selection;
  readonly total: number;
  readonly scope: Scope;
  readonly ask: (dialog: DialogKind) => void;
  readonly bare: (decision: BareDecision) => void;
};

/** The decisions for exactly what is chosen, in the place of the bar that filters the list. */
export function SelectionBar({ selection, total, scope, ask, bare }: SelectionBarProps) {
  const say = useSay(listTexts, commonTexts);
  const { tray, mayLead } = useTray();
  const { chosen, count } = selection;
  const all = chosen.kind === "everything";
  const words = all && chosen.lane !== null ? say("list.in", { name: chosen.name }) : "";
  return (
    <div
      role="toolbar"
      aria-label={say("list.decideAboutTheSelectedConversations")}
      className="flex h-[38px] shrink-0 items-center gap-1.5 overflow-x-auto px-4"
    >
      <span role="status" className="mr-1 font-semibold whitespace-nowrap">
        {all && chosen.lane === null ? say("list.all") : ""}
        {say("list.selected", { count, words })}
      </span>
      {count < total && (
        <button
          type="button"
          onClick={() => selection.chooseAll(total)}
          className="mr-2 whitespace-nowrap text-act underline-offset-2 hover:underline"
        >
          {say("list.allOfTotal", { total })}
        </button>
      )}
      {scope === "held" && (
        <Act command="let-in" filled onClick={() => bare("let-in")}>
          {say("list.letIn")}
        </Act>
      )}
      {scope !== "settled" && (
        <Act command="settle" filled={scope !== "held"} onClick={() => bare("settle")}>
          {say("common.settle")}
        </Act>
      )}
      <Act command="assign" onClick={() => ask("assign")}>
        {say("common.assign")}
      </Act>
      <Act command="categories" onClick={() => ask("categories")}>
        {say("common.categories")}
      </Act>
      <Act command="file" onClick={() => ask("file")}>
        {say("common.file")}
      </Act>
      <Act command="rest" onClick={() => ask("rest")}>
        {say("common.rest")}
      </Act>
      <Act command="expect" onClick={() => ask("expect")}>
        {say("common.wait")}
      </Act>
      <Act command="follow-up" onClick={() => ask("follow-up")}>
        {say("list.followUpAlone")}
      </Act>
      <Act command="bin" onClick={() => bare(scope === "bin" || scope === "junk" ? "restore" : "bin")}>
        {scope === "bin" || scope === "junk" ? say("common.bringBack") : say("common.bin")}
      </Act>
      {mayLead && chosen.kind === "some" && (
        <Link
          to={`/${tray.slug}/rules/new?from=${[...chosen.rows.keys()].slice(0, MAX_EXAMPLES).join()}`}
          className={`${BUTTON_LINK} h-7! px-2.5!`}
        >
          {say("list.makeARule")}
        </Link>
      )}
      <span className="ml-auto pl-2">
        <Act command="back" onClick={selection.clear}>
          {say("list.clearSelection")}
        </Act>
      </span>
    </div>
  );
}

function Act({
  command,
  filled = false,
  onClick,
  children,
}: {
  command: CommandId;
  filled?: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  const keyName = useKeyOf();
  return (
    <Button
      look={filled ? "filled" : "outline"}
      className="h-7! px-2.5!"
      aria-keyshortcuts={keyName(command)}
      onClick={onClick}
    >
      {children} <KeyCap>{keyCap(keyName(command))}</KeyCap>
    </Button>
  );
}
