import { Link, useLocation } from "react-router";
import { ACCESS_GROUPS, type AccessGroup } from "../../../core/access/access-event";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { PlainKey } from "../../../texts/say";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";
import { useFilters } from "../frame/use-filters";

const GROUP_NAMES: Readonly<Record<AccessGroup, PlainKey<typeof officeTexts>>> = {
  "sign-ins": "office.signInsAndPasswords",
  failures: "office.failedSignIns",
  rights: "office.rolesAndAccess",
  exports: "office.exports",
};

/** Whose entries, and of what kind. */
export function AccessFilters() {
  const say = useSay(officeTexts, commonTexts);
  const { members } = useTray();
  const { pathname } = useLocation();
  const { params, choose } = useFilters();
  const groups = Object.keys(ACCESS_GROUPS) as AccessGroup[];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Select
        label={say("office.member")}
        value={params.get("member") ?? ""}
        onChoose={(value) => choose("member", value)}
        choices={[["", say("common.everybodyInside")], ...members.map(({ id, name }) => [id, name] as const)]}
      />
      <Select
        label={say("office.kind")}
        value={params.get("kind") ?? ""}
        onChoose={(value) => choose("kind", value)}
        choices={[["", say("office.everything")], ...groups.map((group) => [group, say(GROUP_NAMES[group])] as const)]}
      />
      {params.has("before") && (
        <Link to={pathname} className="text-sm text-act hover:underline">
          {say("office.newestEntries")}
        </Link>
      )}
    </div>
  );
}
