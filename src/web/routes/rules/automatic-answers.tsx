import { data, Link } from "react-router";
import type { Result } from "../../../core/kernel/result";
import {
  type AnswerRefusal,
  type Deps,
  dropAnswer,
  editAnswer,
  getAnswers,
  previewAnswer,
  type TrayGrant,
} from "../../../operations/index.server";
import { answersTexts } from "../../../texts/en/answers";
import { AnswerList } from "../../screens/automatic-answers/answer-list";
import type { AnswersOutcome } from "../../screens/automatic-answers/answers-outcome";
import type { FormProblems } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { LeadsOnly } from "../../screens/shell/leads-only";
import {
  type AnswerStep,
  answerProblemsByField,
  readAnswerStep,
} from "../../server/automatic-answers/answer-form.server";
import { listedAnswer, type PreviewView, previewView } from "../../server/automatic-answers/answer-view.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { BUTTON_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/automatic-answers";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, answersTexts, "answers.automaticAnswers");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const { timeZone } = context.get(memberContext);
  const answers = await getAnswers(deps, grant);
  return { answers: answers.map((answer) => listedAnswer(answer, deps.now(), timeZone)) };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const { timeZone } = context.get(memberContext);
  const step = await readAnswerStep(deps, grant, await readForm(request), timeZone);
  if (!step.ok) return refused(step.error, step.error.do ?? null, 400);
  const done = await carry(deps, grant, step.value, timeZone);
  if (done.ok) return data<AnswersOutcome>({ ok: true, said: "", preview: null, droppedId: null, ...done.value });
  if (done.error.kind === "answer-problems") return refused(answerProblemsByField(done.error.problems), null, 400);
  return refused({}, refusalSaid(done.error), 409);
}

function refused(problems: FormProblems, problem: string | null, status: number) {
  return data<AnswersOutcome>({ ok: false, problems, problem }, { status });
}

type Done = { readonly said?: string; readonly preview?: PreviewView; readonly droppedId?: string };

async function carry(
  deps: Deps,
  grant: TrayGrant,
  step: AnswerStep,
  zone: string,
): Promise<Result<Done, AnswerRefusal>> {
  const saying = (done: Result<unknown, AnswerRefusal>, value: Done): Result<Done, AnswerRefusal> =>
    done.ok ? { ok: true, value } : done;
  switch (step.do) {
    case "keep":
      return saying(await editAnswer(deps, grant, step.answer), { said: speak("answers.saved") });
    case "preview": {
      const preview = await previewAnswer(deps, grant, step.answer);
      if (!preview.ok) return { ok: false, error: { kind: "answer-problems", problems: preview.error } };
      return { ok: true, value: { preview: previewView(preview.value, deps.now(), zone) } };
    }
    case "drop":
      return saying(await dropAnswer(deps, grant, step.id, true), { droppedId: step.id });
    case "bring-back":
      return saying(await dropAnswer(deps, grant, step.id, false), { said: speak("answers.broughtBack") });
    case "switch": {
      const answer = (await getAnswers(deps, grant)).find(({ id }) => id === step.id);
      if (answer === undefined) return { ok: false, error: { kind: "no-such", what: "automatic-answer" } };
      const said = step.isOn ? speak("answers.switchedOn") : speak("answers.switchedOff");
      return saying(await editAnswer(deps, grant, { ...answer, isOn: step.isOn }), { said });
    }
  }
}

/** What the tray answers by itself; those who lead it say so, everybody reads it. */
export default function AutomaticAnswers({ loaderData: { answers } }: Route.ComponentProps) {
  const say = useSay(answersTexts);
  const { tray, mayLead } = useTray();
  return (
    <Page
      title={say("answers.automaticAnswers")}
      beside={
        mayLead ? (
          <Link to={`/${tray.slug}/automatic-answers/new`} className={`${BUTTON_LINK} ms-auto`}>
            {say("answers.newAnswer")}
          </Link>
        ) : (
          <LeadsOnly />
        )
      }
    >
      <div className="max-w-[960px] space-y-4 px-5 py-4">
        <p className="max-w-prose text-soft">{say("answers.whatTheyAre")}</p>
        <AnswerList answers={answers} />
      </div>
    </Page>
  );
}
