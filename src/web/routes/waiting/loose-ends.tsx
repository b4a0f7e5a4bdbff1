import { data } from "react-router";
import { callLooseEndAgain, callNoLooseEnd } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { LooseEndsScreen } from "../../screens/waiting/loose-ends-screen";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readLooseEndStep } from "../../server/waiting/loose-end-form.server";
import { looseEndsPart } from "../../server/waiting/loose-ends-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/loose-ends";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, commonTexts, "common.looseEnds");
}

export function loader({ request, context }: Route.LoaderArgs) {
  const query = new URL(request.url).searchParams;
  return looseEndsPart(context.get(depsContext), context.get(grantContext), context.get(memberContext), query);
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = readLooseEndStep(await readForm(request));
  if (!step.ok) return data<FormOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const { id, kind, reason } = step.value;
  const done =
    step.value.do === "dismiss"
      ? await callNoLooseEnd(deps, grant, id, kind, reason)
      : await callLooseEndAgain(deps, grant, id, kind);
  if (done.ok)
    return data<FormOutcome>({ ok: true, said: step.value.do === "dismiss" ? "" : speak("waiting.aLooseEndAgain") });
  return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
}

export default function LooseEnds({ loaderData }: Route.ComponentProps) {
  return <LooseEndsScreen first={loaderData} />;
}
