import { Command } from "cmdk";
import { Check } from "lucide-react";
import { useEffect, useState } from "react";
import type { GroupCount } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { filterTexts } from "../../../texts/en/filter";
import { entryValue, matchWords } from "../../ui/match-words";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { DIMENSION_NAMES, type FilterMenuProps } from "./dimension-names";
import { fetchPart } from "./fetch-part";

// Fewer than these are seen at a glance; more are found by typing.
const TYPED_FROM = 9;

type NamedCount = GroupCount & { readonly name: string };

/** The values of a dimension with their counts, fetched when the menu opens. */
export default function FilterCounts({ list, dimension, onChoose }: FilterMenuProps) {
  const say = useSay(filterTexts, commonTexts);
  const { tray } = useTray();
  const [counts, setCounts] = useState<readonly NamedCount[] | "failed" | null>(null);
  const { scope, filter } = list;
  useEffect(() => {
    let isGone = false;
    fetchPart<NamedCount[]>(tray.slug, { scope, filter }, "counts", new URLSearchParams({ by: dimension }))
      .then((found) => !isGone && setCounts(found))
      .catch(() => !isGone && setCounts("failed"));
    return () => {
      isGone = true;
    };
  }, [tray.slug, scope, filter, dimension]);
  if (counts === null) return <p className="px-3 py-2 text-soft">{say("filter.counting")}</p>;
  if (counts === "failed") return <p className="px-3 py-2 text-late">{say("filter.theCountsCouldNotBe")}</p>;
  const chosen = filter[dimension] ?? [];
  return (
    <Command label={say(DIMENSION_NAMES[dimension])} filter={matchWords} loop>
      {/* Always there, so that arrows and Enter work; shown where there is something to look through. */}
      <Command.Input
        autoFocus
        placeholder={say("filter.typeToFind")}
        className={
          counts.length < TYPED_FROM
            ? "sr-only"
            : "mx-3 my-2 h-8 w-[228px] rounded-control border border-rule bg-ground px-2"
        }
      />
      <Command.List className="max-h-72 overflow-y-auto py-1">
        <Command.Empty className="px-3 py-2 text-soft">
          {counts.length === 0 ? say("filter.nothingToChoose") : say("filter.noneOfThatName")}
        </Command.Empty>
        {counts.map(({ key, name, count }) => (
          <Command.Item
            key={key}
            value={entryValue(name, key)}
            onSelect={() => onChoose(key, name)}
            className="flex cursor-pointer items-center gap-2 px-3 py-1 data-[selected=true]:bg-act-soft"
          >
            <span className="w-4 shrink-0">
              {chosen.includes(key) && <Check size={14} aria-label={say("filter.selected")} className="text-act" />}
            </span>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="text-sm text-soft">{say({ figure: count })}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
