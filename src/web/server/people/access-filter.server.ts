import { ACCESS_GROUPS, type AccessGroup } from "../../../core/access/access-event";
import { type MemberId, readId, UUID } from "../../../core/kernel/ids";
import { instant } from "../../../core/kernel/instant";
import type { lookAtAccessLog } from "../../../operations/index.server";

type AccessFilter = Parameters<typeof lookAtAccessLog>[2];

/** What a URL asks for of the access log; what is none of it asks for everything. */
export function readAccessFilter(query: URLSearchParams): AccessFilter {
  const member = readId<MemberId>(query.get("member") ?? "");
  const group = query.get("kind") ?? "";
  return {
    memberId: member.ok ? member.value : null,
    group: Object.hasOwn(ACCESS_GROUPS, group) ? (group as AccessGroup) : null,
    before: readBefore(query.get("before") ?? ""),
  };
}

const LAST_MOMENT = 8_640_000_000_000_000;

function readBefore(text: string): AccessFilter["before"] {
  const [at = "", id = ""] = text.split("_");
  const isMoment = /^\d{1,16}$/.test(at) && Number(at) <= LAST_MOMENT;
  return isMoment && UUID.test(id) ? { at: instant(Number(at)), id } : null;
}
