import { useState } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Select } from "../../ui/select";
import { useTray } from "../frame/tray-data";
import type { ListedGroup, ListedMember } from "./listed-member";
import { useMembersStep } from "./use-members-step";

type ShutOutProps = {
  readonly leaving: ListedMember;
  /** Whether they cannot sign in any more already, and only what they have is handed over. */
  readonly isOut?: boolean;
  readonly members: readonly ListedMember[];
  readonly groups: readonly ListedGroup[];
  readonly onClose: () => void;
};

/** Shuts a member out once somebody was chosen for what she has; nothing is chosen from the start. */
export function ShutOutDialog({ leaving, isOut = false, members, groups, onClose }: ShutOutProps) {
  const { member } = useTray();
  const { Form, action, refused, isBusy } = useMembersStep(onClose);
  const [to, setTo] = useState("");
  const others = members.filter(({ id, role }) => id !== leaving.id && role !== "reader");
  const choices: [string, string][] = [
    ["", "choose"],
    ...others.map(({ id, name }): [string, string] => [`to ${id}`, id === member.id ? `${name} (you)` : name]),
    ...groups.map(({ id, name }): [string, string] => [`group ${id}`, `${name}, in turn`]),
    ["nobody", "nobody: back to be sorted and assigned"],
  ];
  const problem = refused?.problems.to ?? refused?.problem ?? null;
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={isOut ? `Hand over the work of ${leaving.name}` : `Remove access of ${leaving.name}`}
      description={
        isOut
          ? "They cannot sign in, here or in their other trays. What they did stays in the journal."
          : "They can no longer sign in, here or in their other trays. What they did stays in the journal."
      }
      size="wide"
    >
      <Form method="post" action={action} className="space-y-3 p-4">
        <input type="hidden" name="do" value="shut-out" />
        <input type="hidden" name="member" value={leaving.id} />
        <input type="hidden" name="to" value={to} />
        <div className="flex flex-wrap items-center gap-3">
          <span className="font-semibold">Hand over to</span>
          <Select label="Hand over to" value={to} choices={choices} onChoose={setTo} />
        </div>
        <p className="text-sm text-soft">
          Their open conversations and follow-ups now; what is settled, when somebody writes again; drafts that wait for
          them.
        </p>
        {problem !== null && (
          <p role="alert" className="text-late">
            {problem}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="filled" type="submit" disabled={isBusy}>
            {isOut ? "Hand over" : "Remove access and hand over"}
          </Button>
        </div>
      </Form>
    </Dialog>
  );
}
