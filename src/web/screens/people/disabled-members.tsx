import { useState } from "react";
import { peopleTexts } from "../../../texts/en/people";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import type { ListedGroup, ListedMember } from "./listed-member";
import { RemoveAccessDialog } from "./remove-access-dialog";
import { useMembersStep } from "./use-members-step";

type ListedDisabled = ListedMember & { readonly since: string; readonly isReplaced: boolean };
type DisabledMembersProps = {
  readonly disabled: readonly ListedDisabled[];
  readonly members: readonly ListedMember[];
  readonly groups: readonly ListedGroup[];
};

/** Who cannot sign in any more, for those who lead: to let them in again, or to hand over what nobody has yet. */
export function DisabledMembers({ disabled, members, groups }: DisabledMembersProps) {
  const say = useSay(peopleTexts);
  const { refused, post, isBusy } = useMembersStep();
  const [leaving, setLeaving] = useState<ListedDisabled | null>(null);
  if (disabled.length === 0) return null;
  return (
    <section aria-labelledby="without-access">
      <h2 id="without-access" className="border-b border-rule pb-1 text-sm font-semibold">
        {say("people.withoutAccess")}
      </h2>
      <ul>
        {disabled.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair py-1.5">
            <span className="min-w-0 flex-1 truncate">
              {one.name} <span className="text-sm text-soft">{one.signInName}</span>
            </span>
            <span className="text-sm text-soft">{say("people.since", { since: one.since })}</span>
            {!one.isReplaced && (
              <Button
                look="quiet"
                onClick={() => setLeaving(one)}
                aria-label={say("people.handOverTheWorkOf", { name: one.name })}
              >
                {say("people.handOver")}
              </Button>
            )}
            <Button
              disabled={isBusy}
              onClick={() => post({ do: "let-in", member: one.id })}
              aria-label={say("people.restoreAccessOf", { name: one.name })}
            >
              {say("people.restoreAccess")}
            </Button>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-soft">{say("people.theyComeBackWithTheir")}</p>
      {refused !== null && (
        <p role="alert" className="mt-1 text-sm text-late">
          {refused.problem ?? Object.values(refused.problems)[0]}
        </p>
      )}
      {leaving !== null && (
        <RemoveAccessDialog
          leaving={leaving}
          isOut
          members={members}
          groups={groups}
          onClose={() => setLeaving(null)}
        />
      )}
    </section>
  );
}
