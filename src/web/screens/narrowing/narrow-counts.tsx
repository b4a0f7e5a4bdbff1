import { Command } from "cmdk";
import { Check } from "lucide-react";
import { useEffect, useState } from "react";
import type { GroupCount } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { narrowingTexts } from "../../../texts/en/narrowing";
import { byWords, entryValue } from "../../ui/by-words";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { DIMENSION_NAMES, type NarrowMenuProps } from "./dimension-names";
import { fetchPart } from "./fetch-part";

// Fewer than these are seen at a glance; more are found by typing.
const TYPED_FROM = 9;

type NamedCount = GroupCount & { readonly name: string };

/** The values of a dimension with their counts, fetched when the menu opens. */
export default function NarrowCounts({ list, dimension, onChoose }: NarrowMenuProps) {
  const say = useSay(narrowingTexts, commonTexts);
  const { tray } = useTray();
  const [counts, setCounts] = useState<readonly NamedCount[] | "failed" | null>(null);
  const { scope, narrowing } = list;
  useEffect(() => {
    let isGone = false;
    fetchPart<NamedCount[]>(tray.slug, { scope, narrowing }, "counts", new URLSearchParams({ by: dimension }))
      .then((found) => !isGone && setCounts(found))
      .catch(() => !isGone && setCounts("failed"));
    return () => {
      isGone = true;
    };
  }, [tray.slug, scope, narrowing, dimension]);
  if (counts === null) return <p className="px-3 py-2 text-soft">{say("narrowing.counting")}</p>;
  if (counts === "failed") return <p className="px-3 py-2 text-late">{say("narrowing.theCountsCouldNotBe")}</p>;
  const chosen = narrowing[dimension] ?? [];
  return (
    <Command label={say(DIMENSION_NAMES[dimension])} filter={byWords} loop>
      {/* Always there, so that arrows and Enter work; shown where there is something to look through. */}
      <Command.Input
        autoFocus
        placeholder={say("narrowing.typeToFind")}
        className={
          counts.length < TYPED_FROM
            ? "sr-only"
            : "mx-3 my-2 h-8 w-[228px] rounded-control border border-rule bg-ground px-2"
        }
      />
      <Command.List className="max-h-72 overflow-y-auto py-1">
        <Command.Empty className="px-3 py-2 text-soft">
          {counts.length === 0 ? say("narrowing.nothingToChoose") : say("narrowing.noneOfThatName")}
        </Command.Empty>
        {counts.map(({ key, name, count }) => (
          <Command.Item
            key={key}
            value={entryValue(name, key)}
            onSelect={() => onChoose(key, name)}
            className="flex cursor-pointer items-center gap-2 px-3 py-1 data-[selected=true]:bg-act-soft"
          >
            <span className="w-4 shrink-0">
              {chosen.includes(key) && <Check size={14} aria-label={say("narrowing.selected")} className="text-act" />}
            </span>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="text-sm text-soft">{say({ figure: count })}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
