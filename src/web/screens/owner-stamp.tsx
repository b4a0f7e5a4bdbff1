import { Stamp } from "../ui/stamp";
import { useTray } from "./tray-data";

/** The stamp of whoever owns a conversation, as seen by the member who is signed in. */
export function OwnerStamp({ ownerId }: { ownerId: string | null }) {
  const { members, member } = useTray();
  const owner = members.find(({ id }) => id === ownerId) ?? null;
  return <Stamp initials={owner?.initials ?? null} name={owner?.name ?? "no owner"} own={owner?.id === member.id} />;
}
