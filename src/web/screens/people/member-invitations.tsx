import { useState } from "react";
import type { Role } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { Select } from "../../ui/select";
import { saidChoices, useSay } from "../../ui/texts/use-say";
import { ROLE_NAMES, ROLES } from "./listed-member";
import { useMembersStep } from "./use-members-step";

type Invitation = { readonly id: string; readonly role: Role; readonly until: string };

/** Makes links by which people come in, each for one person and a week; shown once. */
export function MemberInvitations({ invitations }: { invitations: readonly Invitation[] }) {
  const say = useSay(peopleTexts, commonTexts);
  const [role, setRole] = useState<Role>("member");
  const [link, setLink] = useState<string | null>(null);
  const { refused, post, isBusy } = useMembersStep((outcome) => outcome.link !== null && setLink(outcome.link));
  return (
    <section aria-labelledby="invitations">
      <h2 id="invitations" className="border-b border-rule pb-1 text-sm font-semibold">
        {say("people.inviteByLink")}
      </h2>
      <div className="mt-2 flex items-center gap-2">
        <span>{say("people.role")}</span>
        <Select
          label={say("people.role")}
          value={role}
          choices={saidChoices(say, ROLES)}
          onChoose={(chosen) => setRole(chosen as Role)}
        />
        <Button disabled={isBusy} onClick={() => post({ do: "invite", role })}>
          {say("people.createLink")}
        </Button>
      </div>
      {link !== null && <Link link={link} />}
      {refused !== null && (
        <p role="alert" className="mt-1 text-sm text-late">
          {refused.problem}
        </p>
      )}
      <ul className="mt-1">
        {invitations.map(({ id, role: given, until }) => (
          <li key={id} className="flex items-center gap-2 border-b border-hair py-1 text-sm">
            <span className="flex-1">
              {say("people.forAUntil", { name: say(ROLE_NAMES[given]).toLowerCase(), until })}
            </span>
            <Button look="quiet" onClick={() => post({ do: "take-back", id })}>
              {say("common.takeBack")}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Link({ link }: { link: string }) {
  const say = useSay(peopleTexts);
  return (
    <div className="mt-2 rounded-sheet border border-dashed border-act/60 bg-act-soft/40 p-2.5">
      <p className="text-sm text-soft">{say("people.sendThemThisLinkIt")}</p>
      <div className="mt-1 flex items-center gap-2">
        <input
          readOnly
          aria-label={say("people.theLink")}
          value={link}
          onFocus={(event) => event.target.select()}
          className="h-8 min-w-0 flex-1 rounded-control border border-rule bg-paper px-2 text-sm"
        />
        <Button onClick={() => void navigator.clipboard?.writeText(link).then(() => notice(say("people.copied")))}>
          {say("people.copy")}
        </Button>
      </div>
    </div>
  );
}
