import { Archive, CalendarClock, FolderInput, Trash2, Undo2, UserRound } from "lucide-react";
import { ContextMenu } from "radix-ui";
import type { ReactNode } from "react";
import { URGENCIES, URGENCY_NAMES } from "../../core/kernel/urgency";
import type { Scope } from "../../core/lists/scope";
import { type CommandId, keyCap } from "../keys/commands";
import { useKeyOf } from "../keys/key-desk";
import type { RowView } from "../server/words.server";
import { MENU, MENU_ITEM } from "../ui/menu-look";
import { PaceMarks } from "../ui/pace-marks";
import type { PostedDecision } from "./decisions";
import type { DialogKind } from "./dialog-props";

export type BareDecision = "settle" | "bin" | "junk" | "keep" | "restore" | "unread";

type Actions = { readonly ask: (dialog: DialogKind) => void; readonly bare: (decision: BareDecision) => void };

/** What a row offers of itself while it is pointed at or has the focus. */
export function RowQuick({ scope, ask, bare }: Actions & { scope: Scope }) {
  const away = scope === "bin" || scope === "junk";
  return (
    <span className="relative z-10 ml-auto hidden shrink-0 gap-0.5 pl-1 group-hover:md:flex group-has-[a:focus-visible]:md:flex group-has-[button:focus-visible]:md:flex">
      {scope !== "settled" && <Quick name="Settle" icon={<Archive size={15} />} onClick={() => bare("settle")} />}
      <Quick name="Assign" icon={<UserRound size={15} />} onClick={() => ask("assign")} />
      <Quick name="Rest until" icon={<CalendarClock size={15} />} onClick={() => ask("rest")} />
      <Quick name="File to a record" icon={<FolderInput size={15} />} onClick={() => ask("file")} />
      {away ? (
        <Quick name="Bring back" icon={<Undo2 size={15} />} onClick={() => bare("restore")} />
      ) : (
        <Quick name="Bin" icon={<Trash2 size={15} />} onClick={() => bare("bin")} />
      )}
    </span>
  );
}

function Quick({ name, icon, onClick }: { name: string; icon: ReactNode; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={name}
      title={name}
      onClick={onClick}
      // The row has to have the cursor first, so that what is done is done to it.
      onPointerDown={(event) => event.currentTarget.closest("li")?.querySelector<HTMLElement>("[data-row]")?.focus()}
      className="grid size-6 place-items-center rounded-control border border-rule bg-paper text-soft hover:border-act hover:text-act"
    >
      {icon}
    </button>
  );
}

type RowMenuProps = Actions & {
  readonly row: RowView;
  readonly act: (decision: PostedDecision) => void;
  readonly answer: () => void;
};

/** Everything that can be decided about a row, by a right click or the menu key. */
export function RowMenu({ row, ask, act, bare, answer }: RowMenuProps) {
  const away = row.standing === "bin" || row.standing === "junk";
  return (
    <ContextMenu.Portal>
      <ContextMenu.Content className={MENU} aria-label={`Decide about ${row.subject || "no subject"}`}>
        <Entry command="answer" onSelect={answer}>
          Answer
        </Entry>
        <Entry command="assign" onSelect={() => ask("assign")}>
          Assign…
        </Entry>
        <Entry command="categories" onSelect={() => ask("categories")}>
          Categories…
        </Entry>
        <Entry command="file" onSelect={() => ask("file")}>
          File to a record…
        </Entry>
        <ContextMenu.Sub>
          <ContextMenu.SubTrigger className={`${MENU_ITEM} justify-between`}>Urgency</ContextMenu.SubTrigger>
          <ContextMenu.Portal>
            <ContextMenu.SubContent className={MENU}>
              {URGENCIES.toReversed().map((urgency) => (
                <ContextMenu.Item
                  key={urgency}
                  className={`${MENU_ITEM} gap-3`}
                  onSelect={() => act({ kind: "urgency", urgency })}
                >
                  <PaceMarks urgency={urgency} /> {URGENCY_NAMES[urgency]}
                </ContextMenu.Item>
              ))}
            </ContextMenu.SubContent>
          </ContextMenu.Portal>
        </ContextMenu.Sub>
        <ContextMenu.Separator className="my-1 border-t border-hair" />
        <Entry command="expect" onSelect={() => ask("expect")}>
          Waiting for reply…
        </Entry>
        <Entry command="rest" onSelect={() => ask("rest")}>
          Rest until…
        </Entry>
        <Entry command="follow-up" onSelect={() => ask("follow-up")}>
          Follow-up…
        </Entry>
        <ContextMenu.Separator className="my-1 border-t border-hair" />
        {row.standing !== "settled" && (
          <Entry command="settle" onSelect={() => bare("settle")}>
            Settle
          </Entry>
        )}
        {row.standing !== "our-move" && (
          <Entry command="keep" onSelect={() => bare("keep")}>
            Our move
          </Entry>
        )}
        <Entry command="bin" onSelect={() => bare(away ? "restore" : "bin")}>
          {away ? "Bring back" : "Bin"}
        </Entry>
        {row.standing !== "junk" && (
          <Entry command="junk" onSelect={() => bare("junk")}>
            Junk
          </Entry>
        )}
        <Entry command="unread" onSelect={() => bare("unread")}>
          Mark unread
        </Entry>
      </ContextMenu.Content>
    </ContextMenu.Portal>
  );
}

function Entry({ command, onSelect, children }: { command: CommandId; onSelect: () => void; children: string }) {
  const keyName = useKeyOf();
  return (
    <ContextMenu.Item className={`${MENU_ITEM} justify-between gap-6`} onSelect={onSelect}>
      {children}
      <span aria-hidden className="text-xs text-soft">
        {keyCap(keyName(command))}
      </span>
    </ContextMenu.Item>
  );
}
