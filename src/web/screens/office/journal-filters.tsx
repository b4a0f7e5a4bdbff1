import { Link, useLocation } from "react-router";
import { officeTexts } from "../../../texts/en/office";
import type { PlainKey } from "../../../texts/say";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useFilters } from "../frame/use-filters";

const KIND_NAMES: Readonly<Record<string, PlainKey<typeof officeTexts>>> = {
  settled: "office.settledSteps",
  assigned: "office.assignedSteps",
  filed: "office.filedSteps",
  categories: "office.categorySteps",
  waiting: "office.waitingSteps",
  resting: "office.restSteps",
  "follow-ups": "office.followUpSteps",
  away: "office.binAndJunk",
  joined: "office.mergedAndSplit",
  together: "office.notesFollowersDrafts",
};

/** Whose steps, and of what kind. */
export function JournalFilters({ kinds }: { kinds: readonly string[] }) {
  const say = useSay(officeTexts);
  const { members, member } = useTray();
  const { params, choose } = useFilters();
  const { pathname } = useLocation();
  return (
    <div className="flex items-center gap-2">
      <Select
        label={say("office.byWhom")}
        value={params.get("by") ?? ""}
        onChoose={(value) => choose("by", value)}
        choices={[
          ["", say("office.byEverybody")],
          [member.id, say("office.byMe")],
          ...members
            .filter(({ id }) => id !== member.id)
            .map(({ id, name }) => [id, say("office.by", { name })] as const),
          ["tray", say("office.byTheTray")],
        ]}
      />
      <Select
        label={say("office.what")}
        value={params.get("kind") ?? ""}
        onChoose={(value) => choose("kind", value)}
        choices={[
          ["", say("office.everything")],
          ...kinds.map((kind) => {
            const name = KIND_NAMES[kind];
            return [kind, name === undefined ? kind : say(name)] as const;
          }),
        ]}
      />
      {params.has("before") && (
        <Link to={pathname} className="text-sm text-act hover:underline">
          {say("office.backToTheNewest")}
        </Link>
      )}
    </div>
  );
}
