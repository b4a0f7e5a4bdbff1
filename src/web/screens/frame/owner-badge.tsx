import { frameTexts } from "../../../texts/en/frame";
import { MemberBadge } from "../../ui/member-badge";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "./tray-data";

/** The stamp of whoever owns a conversation, as seen by the member who is signed in. */
export function OwnerBadge({ ownerId, isCovered = false }: { ownerId: string | null; isCovered?: boolean }) {
  const say = useSay(frameTexts);
  const { members, member } = useTray();
  const owner = members.find(({ id }) => id === ownerId) ?? null;
  const name =
    owner === null ? say("frame.noOwner") : isCovered ? say("frame.coveredByYou", { name: owner.name }) : owner.name;
  return (
    <MemberBadge initials={owner?.initials ?? null} name={name} own={owner?.id === member.id} isCovered={isCovered} />
  );
}
