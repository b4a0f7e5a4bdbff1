import { type KeyboardEvent, type RefObject, useId, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";

type Named = { readonly id: string; readonly name: string };
const MOST = 6;

/** What is being typed after an `@` in front of the cursor; null when nothing is. */
export function callBefore(text: string, cursor: number): { readonly from: number; readonly typed: string } | null {
  const found = /(?:^|[^\p{L}\p{N}.@])@([\p{L}\p{N}]*(?: [\p{L}\p{N}]*)?)$/u.exec(text.slice(0, cursor));
  return found === null ? null : { from: cursor - (found[1]?.length ?? 0) - 1, typed: found[1] ?? "" };
}

/** Offers the colleagues whose names begin so, below the text that is written; the keys that choose one are its own meanwhile. */
export function useMentionMenu(
  field: RefObject<HTMLTextAreaElement | null>,
  text: string,
  setText: (text: string) => void,
) {
  const { members } = useTray();
  const id = useId();
  const [cursor, setCursor] = useState(0);
  const [at, setAt] = useState(0);
  const [closedAt, setClosedAt] = useState<number | null>(null);
  const call = callBefore(text, cursor);
  const typed = call?.typed.toLocaleLowerCase() ?? "";
  const offered: readonly Named[] =
    call === null || call.from === closedAt
      ? []
      : members.filter(({ name }) => isBegun(name, typed) && name.toLocaleLowerCase() !== typed).slice(0, MOST);
  const active = Math.min(at, Math.max(0, offered.length - 1));
  const pick = ({ name }: Named) => {
    if (call === null) return;
    const before = `${text.slice(0, call.from)}@${name} `;
    setText(before + text.slice(cursor).replace(/^ /, ""));
    setCursor(before.length);
    // The text is there with the next drawing; the cursor belongs behind the name then.
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(before.length, before.length);
    });
  };
  const onKey = (event: KeyboardEvent): boolean => {
    const chosen = offered[active];
    if (chosen === undefined || event.ctrlKey || event.metaKey) return false;
    if (event.key === "ArrowDown") setAt((active + 1) % offered.length);
    else if (event.key === "ArrowUp") setAt((active + offered.length - 1) % offered.length);
    else if (event.key === "Enter" || event.key === "Tab") pick(chosen);
    else if (event.key === "Escape") {
      setClosedAt(call?.from ?? null);
      event.stopPropagation();
    } else return false;
    event.preventDefault();
    return true;
  };
  const isOpen = offered.length > 0;
  return {
    id,
    offered,
    active,
    pick,
    onKey,
    look: () => setCursor(field.current?.selectionStart ?? 0),
    aria: {
      "aria-autocomplete": "list",
      "aria-haspopup": "listbox",
      "aria-controls": isOpen ? id : undefined,
      "aria-activedescendant": isOpen ? `${id}-${active}` : undefined,
    } as const,
  };
}

function isBegun(name: string, typed: string): boolean {
  const lower = name.toLocaleLowerCase();
  return lower.startsWith(typed) || lower.split(" ").some((word) => word.startsWith(typed));
}

type MentionMenuProps = Pick<ReturnType<typeof useMentionMenu>, "id" | "offered" | "active" | "pick">;

export function MentionMenu({ id, offered, active, pick }: MentionMenuProps) {
  const say = useSay(commonTexts);
  if (offered.length === 0) return null;
  return (
    <div
      id={id}
      role="listbox"
      aria-label={say("common.colleagues")}
      className="absolute top-full left-0 z-10 mt-0.5 w-64 rounded-sheet border border-rule bg-paper py-1 shadow-raised"
    >
      {offered.map((one, place) => (
        <div
          key={one.id}
          id={`${id}-${place}`}
          role="option"
          tabIndex={-1}
          aria-selected={place === active}
          // Before the field loses the focus, and the menu with it.
          onPointerDown={(event) => {
            event.preventDefault();
            pick(one);
          }}
          className="flex cursor-pointer items-center gap-3 px-3 py-1.5 aria-selected:bg-act-soft"
        >
          <OwnerBadge ownerId={one.id} /> {one.name}
        </div>
      ))}
    </div>
  );
}
