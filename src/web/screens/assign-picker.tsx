import { Picker } from "../ui/picker";
import type { DialogProps } from "./dialog-props";
import { OwnerStamp } from "./owner-stamp";
import { notePick, recentFirst } from "./recent-picks";
import { useTray } from "./tray-data";

const NOBODY = "nobody";

/** Picks the owner of one conversation or several. */
export function AssignPicker({ target, onDecide, onClose }: DialogProps) {
  const { members, member } = useTray();
  const isOwnedBy = (id: string | null) => target.rows.every(({ ownerId }) => ownerId === id);
  // Oneself first: taking a conversation is the most frequent assignment.
  const others = recentFirst(
    "owner",
    members.filter(({ id }) => id !== member.id),
  );
  const ordered = [...members.filter(({ id }) => id === member.id), ...others];
  const people = ordered.map(({ id, name }) => ({
    id: id as string,
    words: id === member.id ? `${name} me` : name,
    on: isOwnedBy(id),
    face: (
      <span className="flex items-center gap-3">
        <OwnerStamp ownerId={id} />
        {id === member.id ? `${name} (you)` : name}
      </span>
    ),
  }));
  const nobody = {
    id: NOBODY,
    words: "nobody no owner",
    on: isOwnedBy(null),
    face: (
      <span className="flex items-center gap-3">
        <OwnerStamp ownerId={null} />
        Nobody
      </span>
    ),
  };
  return (
    <Picker
      title="Assign"
      prompt="Type a colleague's name"
      empty="No colleague of this tray has that name."
      choices={isOwnedBy(null) ? people : [...people, nobody]}
      onPick={(id) => {
        if (id !== NOBODY) notePick("owner", id);
        onDecide({ kind: "assign", owner: id === NOBODY ? "" : id });
      }}
      onClose={onClose}
    />
  );
}
