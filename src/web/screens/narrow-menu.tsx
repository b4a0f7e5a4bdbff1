import { Command } from "cmdk";
import { Check, ChevronDown } from "lucide-react";
import { Popover } from "radix-ui";
import { useEffect, useState } from "react";
import type { Dimension } from "../../core/lists/narrowing";
import type { GroupCount } from "../../operations/index.server";
import type { ListStart } from "../server/list-view.server";
import { useTray } from "./tray-data";
import { fetchPart } from "./use-list";

export const DIMENSION_NAMES: Readonly<Record<Dimension, string>> = {
  owner: "Owner",
  category: "Category",
  record: "Record",
  person: "Person",
  urgency: "Urgency",
  age: "Age",
  attachment: "Attachments",
  unread: "Unread",
};

// Fewer than these are seen at a glance; more are found by typing.
const TYPED_FROM = 9;

type NarrowMenuProps = {
  readonly list: Pick<ListStart, "scope" | "narrowing">;
  readonly dimension: Dimension;
  readonly onChoose: (value: string, name: string) => void;
};

/** What a list can be narrowed by in one dimension, each with how many it would show now. */
export function NarrowMenu({ list, dimension, onChoose }: NarrowMenuProps) {
  const [isOpen, setOpen] = useState(false);
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger className="flex h-7 items-center gap-1 rounded-control px-1.5 text-soft hover:bg-sunk hover:text-ink data-[state=open]:bg-sunk data-[state=open]:text-ink">
        {DIMENSION_NAMES[dimension]}
        <ChevronDown size={13} aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          role="dialog"
          aria-label={`Narrow by ${DIMENSION_NAMES[dimension].toLowerCase()}`}
          className="z-50 w-64 overflow-hidden rounded-sheet border border-rule bg-paper shadow-raised"
        >
          <Counts list={list} dimension={dimension} onChoose={onChoose} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Counts({ list, dimension, onChoose }: NarrowMenuProps) {
  const { tray } = useTray();
  const [counts, setCounts] = useState<readonly GroupCount[] | "failed" | null>(null);
  const { scope, narrowing } = list;
  useEffect(() => {
    let isGone = false;
    fetchPart<GroupCount[]>(tray.slug, { scope, narrowing }, "counts", new URLSearchParams({ by: dimension }))
      .then((found) => !isGone && setCounts(found))
      .catch(() => !isGone && setCounts("failed"));
    return () => {
      isGone = true;
    };
  }, [tray.slug, scope, narrowing, dimension]);
  if (counts === null) return <p className="px-3 py-2 text-soft">Counting…</p>;
  if (counts === "failed") return <p className="px-3 py-2 text-late">The counts could not be loaded.</p>;
  const chosen = narrowing[dimension] ?? [];
  return (
    <Command label={DIMENSION_NAMES[dimension]} loop>
      {/* Always there, so that arrows and Enter work; shown where there is something to look through. */}
      <Command.Input
        autoFocus
        placeholder="Type to find"
        className={
          counts.length < TYPED_FROM
            ? "sr-only"
            : "mx-3 my-2 h-8 w-[228px] rounded-control border border-rule bg-ground px-2"
        }
      />
      <Command.List className="max-h-72 overflow-y-auto py-1">
        <Command.Empty className="px-3 py-2 text-soft">
          {counts.length === 0 ? "Nothing to choose." : "None of that name."}
        </Command.Empty>
        {counts.map(({ key, name, count }) => (
          <Command.Item
            key={key}
            value={`${name} ${key}`}
            onSelect={() => onChoose(key, name)}
            className="flex cursor-pointer items-center gap-2 px-3 py-1 data-[selected=true]:bg-act-soft"
          >
            <span className="w-4 shrink-0">
              {chosen.includes(key) && <Check size={14} aria-label="chosen" className="text-act" />}
            </span>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="text-sm text-soft">{count.toLocaleString("en")}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
