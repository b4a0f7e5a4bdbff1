import { data } from "react-router";
import { dayAndTime } from "../../../core/time/day-words";
import {
  changeOwnMailAddress,
  changeOwnPassword,
  endOwnSessions,
  ownMailAddress,
  ownSessions,
} from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { MailAddressForm, PasswordForm, SessionList } from "../../screens/people/account-parts";
import { depsContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { saidByField, speak } from "../../server/base/say.server";
import { sessionToken } from "../../server/base/session-cookie.server";
import { readAccountStep } from "../../server/people/account-form.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/account";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.titleAccount");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const sessions = await ownSessions(deps, member, (await sessionToken(request)) ?? "");
  const words = (at: (typeof sessions)[number]["usedAt"]) => speak(dayAndTime(at, deps.now(), member.timeZone));
  return {
    signInName: member.signInName,
    mailAddress: (await ownMailAddress(deps, member)) ?? "",
    sessions: sessions.map(({ id, device, address, isOwn, createdAt, usedAt }) => ({
      id,
      device: device || speak("people.anUnnamedProgram"),
      address,
      isOwn,
      begun: words(createdAt),
      used: words(usedAt),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, member] = [context.get(depsContext), context.get(memberContext)];
  const step = readAccountStep(await readForm(request));
  if (!step.ok) return refused(step.error, 400);
  const token = (await sessionToken(request)) ?? "";
  switch (step.value.do) {
    case "password": {
      const changed = await changeOwnPassword(deps, member, token, step.value);
      if (!changed.ok) return refused(saidByField(changed.error), 409);
      return data<FormOutcome>({ ok: true, said: speak("people.passwordChangedYourOtherSessions") });
    }
    case "mail-address": {
      const changed = await changeOwnMailAddress(deps, member, step.value.address);
      if (!changed.ok) return refused({ address: speak(changed.error) }, 400);
      return data<FormOutcome>({ ok: true, said: speak("people.mailAddressSaved") });
    }
    case "end":
      await endOwnSessions(deps, member, token, step.value.session);
      return data<FormOutcome>({ ok: true, said: speak("people.sessionEnded") });
    case "end-others":
      await endOwnSessions(deps, member, token, null);
      return data<FormOutcome>({ ok: true, said: speak("people.yourOtherSessionsHaveEnded") });
  }
}

function refused(problems: Readonly<Record<string, string>>, status: number) {
  return data<FormOutcome>({ ok: false, problems, problem: problems.do ?? null }, { status });
}

/** One's own password, and where one is signed in. */
export default function Account({ loaderData: { signInName, mailAddress, sessions } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  return (
    <Page
      title={say("people.accountAndSessions")}
      beside={<span className="text-soft">{say("people.youSignInAs", { signInName })}</span>}
    >
      <div className="grid max-w-5xl gap-x-12 gap-y-8 px-4 py-5 md:grid-cols-[320px_minmax(0,1fr)]">
        <div className="space-y-8">
          <MailAddressForm address={mailAddress} />
          <PasswordForm />
        </div>
        <SessionList sessions={sessions} />
      </div>
    </Page>
  );
}
