import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import type { ListedGroup } from "./listed-member";
import { useMembersStep } from "./use-members-step";

type MemberGroupsProps = {
  readonly groups: readonly ListedGroup[];
  readonly members: readonly { readonly id: string; readonly name: string }[];
};

/** Groups that take turns: what is assigned to one goes to whoever of it has least to do and is there. */
export function MemberGroups({ groups, members }: MemberGroupsProps) {
  const say = useSay(peopleTexts, commonTexts);
  const { mayLead } = useTray();
  const [edited, setEdited] = useState<ListedGroup | "new" | null>(null);
  const { post } = useMembersStep();
  return (
    <section aria-labelledby="groups">
      <h2 id="groups" className="border-b border-rule pb-1 text-sm font-semibold">
        {say("people.groupsThatTakeTurns")}
      </h2>
      {groups.length === 0 && <p className="py-1.5 text-sm text-soft">{say("people.noGroupsYetWhatIs")}</p>}
      <ul>
        {groups.map((group) => (
          <li key={group.id} className="flex items-center gap-2 border-b border-hair py-1.5">
            <span className="min-w-0 flex-1 truncate">{group.name}</span>
            <span className="flex gap-1">
              {group.memberIds.map((id) => (
                <OwnerBadge key={id} ownerId={id} />
              ))}
            </span>
            {mayLead && (
              <>
                <Button
                  look="quiet"
                  onClick={() => setEdited(group)}
                  aria-label={say("common.changeOf", { name: group.name })}
                >
                  {say("common.change")}
                </Button>
                <Button
                  look="quiet"
                  onClick={() => post({ do: "drop-group", id: group.id })}
                  aria-label={say("common.removeOf", { name: group.name })}
                >
                  {say("common.remove")}
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      {mayLead && edited === null && (
        <Button className="mt-2" onClick={() => setEdited("new")}>
          {say("people.newGroup")}
        </Button>
      )}
      {edited !== null && (
        <GroupForm
          key={edited === "new" ? "" : edited.id}
          group={edited === "new" ? null : edited}
          members={members}
          onClose={() => setEdited(null)}
        />
      )}
    </section>
  );
}

type GroupFormProps = Pick<MemberGroupsProps, "members"> & {
  readonly group: ListedGroup | null;
  readonly onClose: () => void;
};

function GroupForm({ group, members, onClose }: GroupFormProps) {
  const say = useSay(peopleTexts, commonTexts);
  const { Form, action, refused, isBusy } = useMembersStep(onClose);
  const problems = refused?.problems ?? {};
  return (
    <Form method="post" action={action} noValidate className="mt-2 space-y-2 rounded-sheet border border-rule p-3">
      <input type="hidden" name="do" value="group" />
      <input type="hidden" name="id" value={group?.id ?? ""} />
      <Field
        label={say("people.nameOfTheGroup")}
        name="name"
        defaultValue={group?.name ?? ""}
        problem={problems.name ?? refused?.problem ?? undefined}
        autoFocus
        autoComplete="off"
      />
      <fieldset className="grid grid-cols-2 gap-x-3" aria-describedby={problems.members ? "group-members" : undefined}>
        <legend className="text-sm font-semibold">{say("people.membersOfTheGroup")}</legend>
        {members.map(({ id, name }) => (
          <Tick key={id} name="members" value={id} defaultChecked={group?.memberIds.includes(id) ?? false}>
            {name}
          </Tick>
        ))}
      </fieldset>
      {problems.members !== undefined && (
        <p id="group-members" className="text-sm text-late">
          {problems.members}
        </p>
      )}
      <div className="flex gap-2">
        <Button look="filled" type="submit" disabled={isBusy}>
          {say("people.saveGroup")}
        </Button>
        <Button look="quiet" onClick={onClose}>
          {say("common.cancel")}
        </Button>
      </div>
    </Form>
  );
}
