import { Archive, CalendarClock, FolderInput, LogIn, Trash2, Undo2, UserRound } from "lucide-react";
import type { ReactNode } from "react";
import type { Scope } from "../../../core/lists/scope";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { useSay } from "../../ui/texts/use-say";
import type { DialogKind } from "../deciding/dialog-props";

export type BareDecision = "settle" | "bin" | "junk" | "keep" | "restore" | "let-in" | "unread";

export type Actions = { readonly ask: (dialog: DialogKind) => void; readonly bare: (decision: BareDecision) => void };

/** What a row offers of itself while it is pointed at or has the focus. */
export function RowQuick({ scope, ask, bare }: Actions & { scope: Scope }) {
  const say = useSay(listTexts, commonTexts);
  const away = scope === "bin" || scope === "junk";
  return (
    <span className="relative z-10 ml-auto hidden shrink-0 gap-0.5 pl-1 group-hover:md:flex group-has-[a:focus-visible]:md:flex group-has-[button:focus-visible]:md:flex">
      {scope === "held" && <Quick name={say("list.letIn")} icon={<LogIn size={15} />} onClick={() => bare("let-in")} />}
      {scope !== "settled" && (
        <Quick name={say("common.settle")} icon={<Archive size={15} />} onClick={() => bare("settle")} />
      )}
      <Quick name={say("common.assign")} icon={<UserRound size={15} />} onClick={() => ask("assign")} />
      <Quick name={say("list.restUntilAlone")} icon={<CalendarClock size={15} />} onClick={() => ask("rest")} />
      <Quick name={say("list.fileToARecordAlone")} icon={<FolderInput size={15} />} onClick={() => ask("file")} />
      {away ? (
        <Quick name={say("common.bringBack")} icon={<Undo2 size={15} />} onClick={() => bare("restore")} />
      ) : (
        <Quick name={say("common.bin")} icon={<Trash2 size={15} />} onClick={() => bare("bin")} />
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
