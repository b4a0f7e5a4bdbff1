import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { FormFoot } from "../forms/form-foot";
import { useTray } from "../frame/tray-data";
import type { ListedGroup, ListedMember } from "./listed-member";
import { useMembersStep } from "./use-members-step";

type RemoveAccessProps = {
  readonly leaving: ListedMember;
  /** Whether they cannot sign in any more already, and only what they have is handed over. */
  readonly isOut?: boolean;
  readonly members: readonly ListedMember[];
  readonly groups: readonly ListedGroup[];
  readonly onClose: () => void;
};

/** Shuts a member out once somebody was chosen for what she has; nothing is chosen from the start. */
export function RemoveAccessDialog({ leaving, isOut = false, members, groups, onClose }: RemoveAccessProps) {
  const say = useSay(peopleTexts, commonTexts);
  const { member } = useTray();
  const { Form, action, refused, isBusy } = useMembersStep(onClose);
  const [to, setTo] = useState("");
  const others = members.filter(({ id, role }) => id !== leaving.id && role !== "reader");
  const choices: [string, string][] = [
    ["", "choose"],
    ...others.map(({ id, name }): [string, string] => [`to ${id}`, id === member.id ? `${name} (you)` : name]),
    ...groups.map(({ id, name }): [string, string] => [`group ${id}`, say("people.inTurn", { name })]),
    ["nobody", say("people.nobodyBackToBeSorted")],
  ];
  const problem = refused?.problems.to ?? refused?.problem ?? null;
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={
        isOut
          ? say("people.handOverTheWorkOf", { name: leaving.name })
          : say("people.removeAccessOf", { name: leaving.name })
      }
      description={isOut ? say("people.theyCannotSignInHere") : say("people.theyCanNoLongerSign")}
      size="wide"
    >
      <Form method="post" action={action} className="space-y-3 p-4">
        <input type="hidden" name="do" value="shut-out" />
        <input type="hidden" name="member" value={leaving.id} />
        <input type="hidden" name="to" value={to} />
        <div className="flex flex-wrap items-center gap-3">
          <span className="font-semibold">{say("people.handOverTo")}</span>
          <Select label={say("people.handOverTo")} value={to} choices={choices} onChoose={setTo} />
        </div>
        <p className="text-sm text-soft">{say("people.theirOpenConversationsAndFollow")}</p>
        <FormFoot problem={problem} onClose={onClose}>
          <Button look="filled" type="submit" disabled={isBusy}>
            {isOut ? say("common.handOver") : say("people.removeAccessAndHandOver")}
          </Button>
        </FormFoot>
      </Form>
    </Dialog>
  );
}
