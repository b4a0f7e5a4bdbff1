import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import { type ListedGroup, type ListedMember, ROLE_NAMES, ROLES } from "./listed-member";
import { RemoveAccessDialog } from "./remove-access-dialog";
import { useMembersStep } from "./use-members-step";

/** Everybody in the tray with what she may do. */
export function MemberTable({ members, groups }: { members: readonly ListedMember[]; groups: readonly ListedGroup[] }) {
  const say = useSay(peopleTexts);
  const { mayLead } = useTray();
  const [leaving, setLeaving] = useState<ListedMember | null>(null);
  return (
    <section aria-label={say("people.membersOfTheTray")}>
      <ul className="border-t border-rule">
        {members.map((one) => (
          <MemberLine key={one.id} listed={one} onRemoveAccess={mayLead ? () => setLeaving(one) : null} />
        ))}
      </ul>
      <p className="mt-2 text-sm text-soft">{say("people.leadsSetTheTrayUp")}</p>
      {leaving !== null && (
        <RemoveAccessDialog leaving={leaving} members={members} groups={groups} onClose={() => setLeaving(null)} />
      )}
    </section>
  );
}

function MemberLine({ listed, onRemoveAccess }: { listed: ListedMember; onRemoveAccess: (() => void) | null }) {
  const say = useSay(peopleTexts, commonTexts);
  const { members, member } = useTray();
  const { refused, post } = useMembersStep();
  const { id, name, signInName, role } = listed;
  const away = members.find((one) => one.id === id)?.away ?? null;
  return (
    <li className="border-b border-hair py-1.5">
      <div className="grid grid-cols-[34px_minmax(0,1fr)_auto_auto] justify-items-start items-center gap-x-3 sm:grid-cols-[34px_minmax(0,1fr)_90px_104px_auto]">
        <OwnerBadge ownerId={id} />
        <span className="w-full min-w-0 truncate">
          {name}
          {id === member.id && <span className="text-soft"> {say("people.you")}</span>}
          {away !== null && (
            <span className="block text-sm text-soft">{say("people.awayUntil", { back: away.back })}</span>
          )}
        </span>
        <span className="hidden truncate text-sm text-soft sm:block">{signInName}</span>
        {onRemoveAccess === null ? (
          <span className="text-soft">{say(ROLE_NAMES[role])}</span>
        ) : (
          <Select
            label={say("people.roleOf", { name })}
            value={role}
            choices={saidChoices(say, ROLES)}
            onChoose={(chosen) => post({ do: "role", member: id, role: chosen })}
          />
        )}
        {onRemoveAccess !== null && (
          <Button
            look="quiet"
            disabled={id === member.id}
            onClick={onRemoveAccess}
            aria-label={say("people.removeAccessOf", { name })}
          >
            <span>
              {say("common.remove")}
              <span className="max-sm:hidden"> {say("people.access")}</span>…
            </span>
          </Button>
        )}
      </div>
      {refused !== null && (
        <p role="alert" className="pl-[46px] text-sm text-late">
          {refused.problem ?? Object.values(refused.problems)[0]}
        </p>
      )}
    </li>
  );
}
