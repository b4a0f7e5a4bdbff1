import { data, Form, redirect, useNavigation } from "react-router";
import { demoColleagues, signIn, signInToDemo, signOut, whoIs } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import { depsContext, siteMapContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { safeNext } from "../../server/base/safe-next";
import { speak } from "../../server/base/say.server";
import { sessionToken, setSessionCookie } from "../../server/base/session-cookie.server";
import { readSignIn, type SignInProblems } from "../../server/people/sign-in-form.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Logo } from "../../ui/logo";
import { MemberBadge } from "../../ui/member-badge";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/sign-in";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.signIn");
}

const nextOf = (request: Request, context: Route.LoaderArgs["context"]) =>
  safeNext(new URL(request.url).searchParams.get("next"), context.get(siteMapContext));

export async function loader({ request, context }: Route.LoaderArgs) {
  const deps = context.get(depsContext);
  const token = await sessionToken(request);
  const next = nextOf(request, context);
  if (token !== null && (await whoIs(deps, token)) !== null) throw redirect(next);
  const colleagues = await demoColleagues(deps);
  return { colleagues: colleagues.map(({ signInName, name, initials }) => ({ signInName, name, initials })) };
}

const REFUSALS = {
  "wrong-name-or-password": "people.wrongNameOrPasswordCheck",
  "too-many-tries": "people.tooManyTriesAtOnce",
} as const;

export async function action({ request, context }: Route.ActionArgs) {
  const deps = context.get(depsContext);
  const form = await readForm(request);
  // A page that is sent before the browser has its script is drawn anew, with what was typed in it.
  const typed = String(form.get("name") ?? "");
  const posted = readSignIn(form);
  if (!posted.ok) return data({ problems: posted.error, problem: null, typed }, { status: 400 });
  const { name, password } = posted.value;
  const session = password === null ? await signInToDemo(deps, name) : await signIn(deps, name, password);
  if (!session.ok)
    return data(
      { problems: {} as SignInProblems, problem: speak(REFUSALS[session.error.kind]), typed },
      { status: 401 },
    );
  // Whoever was signed in here before is so no more.
  const before = await sessionToken(request);
  if (before !== null) await signOut(deps, before);
  const next = nextOf(request, context);
  return redirect(next, { headers: { "Set-Cookie": await setSessionCookie(session.value, context) } });
}

export default function SignIn({ loaderData: { colleagues }, actionData }: Route.ComponentProps) {
  const say = useSay(peopleTexts, commonTexts);
  const busy = useNavigation().state !== "idle";
  return (
    <main className="mx-auto grid min-h-screen max-w-[880px] content-center gap-x-16 gap-y-10 px-6 py-10 md:grid-cols-2">
      <section className="flex flex-col justify-center">
        <p className="flex items-center gap-2.5 font-serif text-[19px] font-semibold">
          <Logo /> {say("people.commonTray")}
        </p>
        <h1 className="mt-5 font-serif text-2xl">{say("people.oneTrayAndEverybodyKnows")}</h1>
        <Form method="post" className="mt-6 grid gap-3.5" noValidate>
          <Field
            label={say("common.name")}
            name="name"
            autoComplete="username"
            autoFocus
            defaultValue={actionData?.typed}
            problem={actionData?.problems.name}
          />
          <Field
            label={say("people.password")}
            name="password"
            type="password"
            autoComplete="current-password"
            problem={actionData?.problems.password}
          />
          {actionData?.problem != null && (
            <p role="alert" className="text-late">
              {actionData.problem}
            </p>
          )}
          <Button
            look={colleagues.length === 0 ? "filled" : "outline"}
            type="submit"
            disabled={busy}
            className="h-9 justify-center"
          >
            {say("people.signIn")}
          </Button>
        </Form>
      </section>
      {colleagues.length > 0 && (
        <section aria-labelledby="demo" className="rounded-sheet border border-rule bg-paper p-5 shadow-docket">
          <h2 id="demo" className="font-serif text-xl">
            {say("people.theDemoOttermoorOrganWorks")}
          </h2>
          <p className="mt-1 text-soft">{say("people.anInventedOfficeThatBuilds")}</p>
          <ul className="mt-3 divide-y divide-hair border-t border-hair">
            {colleagues.map(({ signInName, name, initials }) => (
              <li key={signInName}>
                <Form method="post">
                  <input type="hidden" name="colleague" value={signInName} />
                  <button
                    type="submit"
                    disabled={busy}
                    className="flex w-full items-center gap-3 px-1 py-2.5 text-start hover:bg-act-soft focus-visible:-outline-offset-2"
                  >
                    <MemberBadge initials={initials} name="" />
                    <span className="font-semibold">{name}</span>
                    <span className="ml-auto text-sm text-soft">{signInName}</span>
                  </button>
                </Form>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
