import { useEffect, useState } from "react";
import { data, Form, redirect, useNavigation } from "react-router";
import { acceptInvitation, invitedTo, joinByInvitation, signIn, whoIs } from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import { depsContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import { sessionToken, setSessionCookie } from "../../server/base/session-cookie.server";
import { type InviteProblems, readNewcomer } from "../../server/people/invite-form.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Logo } from "../../ui/logo";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/invite";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.joinAlone");
}

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const deps = context.get(depsContext);
  const tray = await invitedTo(deps, params.token);
  const token = await sessionToken(request);
  const member = token === null ? null : await whoIs(deps, token);
  return { tray, signedInAs: member?.name ?? null };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const deps = context.get(depsContext);
  const over = speak("people.thisInvitationWasUsedTaken");
  const form = await readForm(request);
  const token = await sessionToken(request);
  const member = token === null ? null : await whoIs(deps, token);
  if (form.get("do") === "join" && member !== null) {
    const joined = await joinByInvitation(deps, params.token, member);
    if (joined.ok) return redirect("/");
    return data({ problems: {} as InviteProblems, problem: over }, { status: 410 });
  }
  const newcomer = await readNewcomer(form);
  if (!newcomer.ok) return data({ problems: newcomer.error, problem: null }, { status: 400 });
  const accepted = await acceptInvitation(deps, params.token, newcomer.value);
  if (!accepted.ok) {
    const isTaken = accepted.error.kind === "name-taken";
    const problems: InviteProblems = isTaken ? { signInName: speak("people.taken") } : {};
    return data({ problems, problem: isTaken ? null : over }, { status: isTaken ? 409 : 410 });
  }
  const session = await signIn(deps, newcomer.value.signInName, newcomer.value.password);
  if (!session.ok) return redirect("/sign-in");
  return redirect("/", { headers: { "Set-Cookie": await setSessionCookie(session.value, context) } });
}

/** Where an invitation leads: a newcomer says who she is and is in. */
export default function Invite({ loaderData: { tray, signedInAs }, actionData }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const busy = useNavigation().state !== "idle";
  const problems = actionData?.problems ?? {};
  return (
    <main className="mx-auto grid min-h-screen max-w-[440px] content-center px-6 py-10">
      <p className="flex items-center gap-2.5 font-serif text-[19px] font-semibold">
        <Logo /> {say("people.commonTray")}
      </p>
      {tray === null ? (
        <>
          <h1 className="mt-5 font-serif text-2xl">{say("people.thisInvitationIsNotValid")}</h1>
          <p className="mt-2 text-soft">{say("people.thisInvitationWasUsedTaken")}</p>
        </>
      ) : (
        <>
          <h1 className="mt-5 font-serif text-2xl">{say("people.join", { tray })}</h1>
          {signedInAs !== null && (
            <Form method="post" className="mt-4 rounded-sheet border border-rule bg-paper p-4">
              <p>{say("people.youAreSignedInAs", { signedInAs })}</p>
              <Button type="submit" name="do" value="join" look="filled" className="mt-2" disabled={busy}>
                {say("people.joinAs", { signedInAs })}
              </Button>
            </Form>
          )}
          <Form method="post" noValidate className="mt-6 grid gap-3.5" aria-label={say("people.whoYouAre")}>
            <Zone />
            <Field label={say("people.yourName")} name="name" autoComplete="name" problem={problems.name} autoFocus />
            <Field
              label={say("people.initialsForYourStamp")}
              name="initials"
              maxLength={3}
              problem={problems.initials}
            />
            <Field
              label={say("people.signInName")}
              name="signInName"
              autoComplete="username"
              problem={problems.signInName}
            />
            <Field
              label={say("people.password")}
              name="password"
              type="password"
              autoComplete="new-password"
              problem={problems.password}
            />
            {actionData?.problem != null && (
              <p role="alert" className="text-late">
                {actionData.problem}
              </p>
            )}
            <Button look="filled" type="submit" disabled={busy} className="h-9 justify-center">
              {say("people.joinAlone")}
            </Button>
          </Form>
        </>
      )}
    </main>
  );
}

/** The zone of the newcomer's own clock, as her browser has it. */
function Zone() {
  const [zone, setZone] = useState("UTC");
  useEffect(() => setZone(Intl.DateTimeFormat().resolvedOptions().timeZone), []);
  return <input type="hidden" name="timeZone" value={zone} />;
}
