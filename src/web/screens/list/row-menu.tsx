import { DropdownMenu } from "radix-ui";
import { URGENCIES, URGENCY_NAMES } from "../../../core/kernel/urgency";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { type CommandId, keyCap } from "../../keys/commands";
import { useKeyOf } from "../../keys/key-desk";
import type { RowView } from "../../server/base/row-view.server";
import { MENU, MENU_ITEM } from "../../ui/menu-look";
import { useSay } from "../../ui/texts/use-say";
import { UrgencyMarks } from "../../ui/urgency-marks";
import type { PostedDecision } from "../deciding/posted-decision";
import type { Actions } from "./row-actions";
import type { Point } from "./sheet";

type RowMenuProps = Actions & {
  readonly row: RowView;
  readonly act: (decision: PostedDecision) => void;
  readonly answer: () => void;
  readonly at: Point;
  readonly onClose: () => void;
};

/** Everything that can be decided about a row, by a right click or the menu key. */
export default function RowMenu({ row, ask, act, bare, answer, at, onClose }: RowMenuProps) {
  const say = useSay(listTexts, commonTexts);
  const away = row.standing === "bin" || row.standing === "junk";
  return (
    <DropdownMenu.Root open onOpenChange={(isOpen) => !isOpen && onClose()}>
      <DropdownMenu.Trigger aria-hidden tabIndex={-1} className="fixed size-0" style={{ left: at.x, top: at.y }} />
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className={MENU}
          align="start"
          sideOffset={0}
          aria-label={say("list.decideAbout", { subject: row.subject || say("common.noSubjectInside") })}
        >
          <Entry command="answer" onSelect={answer}>
            {say("common.answer")}
          </Entry>
          <Entry command="assign" onSelect={() => ask("assign")}>
            {say("list.assign")}
          </Entry>
          <Entry command="categories" onSelect={() => ask("categories")}>
            {say("list.categories")}
          </Entry>
          <Entry command="file" onSelect={() => ask("file")}>
            {say("list.fileToARecord")}
          </Entry>
          <DropdownMenu.Sub>
            <DropdownMenu.SubTrigger className={`${MENU_ITEM} justify-between`}>
              {say("common.urgency")}
            </DropdownMenu.SubTrigger>
            <DropdownMenu.Portal>
              <DropdownMenu.SubContent className={MENU}>
                {URGENCIES.toReversed().map((urgency) => (
                  <DropdownMenu.Item
                    key={urgency}
                    className={`${MENU_ITEM} gap-3`}
                    onSelect={() => act({ kind: "urgency", urgency })}
                  >
                    <UrgencyMarks urgency={urgency} /> {say(URGENCY_NAMES[urgency])}
                  </DropdownMenu.Item>
                ))}
              </DropdownMenu.SubContent>
            </DropdownMenu.Portal>
          </DropdownMenu.Sub>
          <DropdownMenu.Separator className="my-1 border-t border-hair" />
          <Entry command="expect" onSelect={() => ask("expect")}>
            {say("list.waitingForReply")}
          </Entry>
          <Entry command="rest" onSelect={() => ask("rest")}>
            {say("list.restUntil")}
          </Entry>
          <Entry command="follow-up" onSelect={() => ask("follow-up")}>
            {say("list.followUp")}
          </Entry>
          <DropdownMenu.Separator className="my-1 border-t border-hair" />
          {row.standing === "held" && (
            <Entry command="let-in" onSelect={() => bare("let-in")}>
              {say("list.letIn")}
            </Entry>
          )}
          {row.standing !== "settled" && (
            <Entry command="settle" onSelect={() => bare("settle")}>
              {say("common.settle")}
            </Entry>
          )}
          {row.standing !== "our-move" && (
            <Entry command="keep" onSelect={() => bare("keep")}>
              {say("common.ourMove")}
            </Entry>
          )}
          <Entry command="bin" onSelect={() => bare(away ? "restore" : "bin")}>
            {away ? say("common.bringBack") : say("common.bin")}
          </Entry>
          {row.standing !== "junk" && (
            <Entry command="junk" onSelect={() => bare("junk")}>
              {say("list.junk")}
            </Entry>
          )}
          <Entry command="unread" onSelect={() => bare("unread")}>
            {say("list.markUnread")}
          </Entry>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Entry({ command, onSelect, children }: { command: CommandId; onSelect: () => void; children: string }) {
  const keyName = useKeyOf();
  return (
    <DropdownMenu.Item className={`${MENU_ITEM} justify-between gap-6`} onSelect={onSelect}>
      {children}
      <span aria-hidden className="text-xs text-soft">
        {keyCap(keyName(command))}
      </span>
    </DropdownMenu.Item>
  );
}
