import { data, Link } from "react-router";
import type { Result } from "../../../core/kernel/result";
import { dayInWords } from "../../../core/time/day-words";
import {
  changeRole,
  type Deps,
  dropGroup,
  editGroup,
  invite,
  peopleOfTray,
  type Refusal,
  removeAccess,
  restoreAccess,
  type TrayGrant,
  takeInvitationBack,
} from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import { useTray } from "../../screens/frame/tray-data";
import { DisabledMembers } from "../../screens/people/disabled-members";
import { MemberGroups } from "../../screens/people/member-groups";
import { MemberInvitations } from "../../screens/people/member-invitations";
import { MemberTable } from "../../screens/people/member-table";
import type { MembersOutcome } from "../../screens/people/members-outcome";
import { depsContext, grantContext, memberContext, publicUrlContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { type MembersStep, readMembersStep } from "../../server/people/members-form.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/members";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.titleMembers");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const { members, disabled, invitations, groups } = await peopleOfTray(deps, grant);
  const { now, zone } = readingOf(member, deps.now());
  return {
    members: members.map(({ id, name, signInName, role }) => ({ id, name, signInName, role })),
    disabled: disabled.map(({ id, name, signInName, role, since, isReplaced }) => ({
      id,
      name,
      signInName,
      role,
      since: speak(dayInWords(since, now, zone)),
      isReplaced,
    })),
    invitations: invitations.map(({ id, role, madeBy, expiresAt }) => ({
      id,
      role,
      madeBy,
      until: speak(dayInWords(expiresAt, now, zone)),
    })),
    groups: groups.map(({ id, name, memberIds }) => ({ id, name, memberIds })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const step = readMembersStep(await readForm(request));
  if (!step.ok) return data<MembersOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carry(
    context.get(depsContext),
    context.get(grantContext),
    step.value,
    context.get(publicUrlContext),
  );
  if (done.ok) return data<MembersOutcome>({ ok: true, link: null, ...done.value });
  return data<MembersOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
}

type Said = { readonly said: string; readonly link?: string };

async function carry(
  deps: Deps,
  grant: TrayGrant,
  step: MembersStep,
  publicUrl: string,
): Promise<Result<Said, Refusal>> {
  const saying = <T,>(done: Result<T, Refusal>, said: (value: T) => Said): Result<Said, Refusal> =>
    done.ok ? { ok: true, value: said(done.value) } : done;
  switch (step.do) {
    case "role":
      return saying(await changeRole(deps, grant, step.memberId, step.role), () => ({
        said: speak("people.roleChanged"),
      }));
    case "invite":
      return saying(await invite(deps, grant, step.role), ({ token }) => ({
        said: speak("people.invitationMade"),
        link: `${publicUrl}/invite/${token}`,
      }));
    case "take-back":
      return saying(await takeInvitationBack(deps, grant, step.id), () => ({
        said: speak("people.invitationTakenBack"),
      }));
    case "let-in":
      return saying(await restoreAccess(deps, grant, step.memberId), () => ({ said: speak("people.accessRestored") }));
    case "shut-out":
      return saying(await removeAccess(deps, grant, step.memberId, step.handOver), ({ handedOver }) => ({
        said: speak("people.accessRemovedConversationsHandedOver", { handedOver }),
      }));
    case "group":
      return saying(await editGroup(deps, grant, step), () => ({ said: speak("people.groupSaved") }));
    case "drop-group":
      return saying(await dropGroup(deps, grant, step.id), () => ({ said: speak("people.groupRemoved") }));
  }
}

/** Who is in the tray and what each may do; those who lead it invite, change roles, make groups and shut out. */
export default function Members({ loaderData: { members, disabled, invitations, groups } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const { tray, mayLead } = useTray();
  return (
    <Page
      title={say("people.membersAndGroups")}
      beside={
        mayLead ? (
          <nav aria-label={say("people.aboutMembers")} className="ml-auto flex gap-4">
            <Link to={`/${tray.slug}/overview`} className="text-act hover:underline">
              {say("people.overview")}
            </Link>
            <Link to={`/${tray.slug}/access-log`} className="text-act hover:underline">
              {say("people.accessLog")}
            </Link>
          </nav>
        ) : (
          <span className="text-soft">{say("people.onlyLeadsOfTheTray")}</span>
        )
      }
    >
      <div className="grid grid-cols-1 gap-x-10 gap-y-6 px-3 py-4 sm:px-5 lg:grid-cols-[minmax(0,1fr)_380px]">
        <div className="space-y-6">
          <MemberTable members={members} groups={groups} />
          <DisabledMembers disabled={disabled} members={members} groups={groups} />
        </div>
        <div className="space-y-6">
          {mayLead && <MemberInvitations invitations={invitations} />}
          <MemberGroups groups={groups} members={members.filter(({ role }) => role !== "reader")} />
        </div>
      </div>
    </Page>
  );
}
