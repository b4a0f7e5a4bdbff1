import { changeLetter, getLettersToGo, namesIn } from "../../../operations/index.server";
import { writingTexts } from "../../../texts/en/writing";
import { LaterLettersScreen } from "../../screens/later-letters/later-letters-screen";
import type { LetterStepOutcome } from "../../screens/later-letters/use-letter-steps";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { memberNames } from "../../server/base/member-names.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { readLetterStep } from "../../server/writing/letter-step-form.server";
import { letterToGoView } from "../../server/writing/letter-to-go-view.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/going-later";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, writingTexts, "writing.toGoLater");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const [letters, { members }] = await Promise.all([getLettersToGo(deps, grant), namesIn(deps, grant)]);
  const reading = readingOf(member, deps.now(), grant.covering);
  return letters.map((letter) => letterToGoView(letter, memberNames(members, reading), reading));
}

export async function action({ request, context }: Route.ActionArgs) {
  const step = readLetterStep(await readForm(request));
  if (!step.ok) return Response.json({ ok: false, problem: step.error } satisfies LetterStepOutcome, { status: 400 });
  const { id, ...what } = step.value;
  const done = await changeLetter(context.get(depsContext), context.get(grantContext), id, what);
  if (!done.ok)
    return Response.json({ ok: false, problem: refusalSaid(done.error) } satisfies LetterStepOutcome, { status: 409 });
  const said = speak("writing.letterStepDone", { what: what.do.replaceAll("-", "") });
  return Response.json({ ok: true, said } satisfies LetterStepOutcome);
}

/** What is to go later, by day. */
export default function GoingLater({ loaderData }: Route.ComponentProps) {
  return <LaterLettersScreen letters={loaderData} />;
}
