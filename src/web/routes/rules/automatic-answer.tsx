import { data, redirect } from "react-router";
import { getAnswers } from "../../../operations/index.server";
import { answersTexts } from "../../../texts/en/answers";
import { AnswerEditor } from "../../screens/automatic-answers/answer-editor";
import type { WrittenAnswer } from "../../screens/automatic-answers/written-answer";
import { writtenAnswer } from "../../server/automatic-answers/answer-view.server";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { pageTitle } from "../../ui/texts/page-title";
import type { Route } from "./+types/automatic-answer";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, answersTexts, "answers.automaticAnswer");
}

const NEW = "new";
const NEW_ANSWER: WrittenAnswer = {
  id: null,
  name: "",
  isOn: true,
  from: "",
  until: "",
  trigger: { kind: "always" },
  texts: [{ condition: { kind: "every" }, text: "", copiesCover: false }],
  pace: { kind: "once", days: 7 },
};

export async function loader({ context, params }: Route.LoaderArgs): Promise<{ readonly answer: WrittenAnswer }> {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  if (grant.role !== "lead") throw redirect(`/${params.tray}/automatic-answers`);
  if (params.answer === NEW) return { answer: NEW_ANSWER };
  const found = (await getAnswers(deps, grant)).find(({ id }) => id === params.answer);
  if (found === undefined) throw data(null, { status: 404 });
  return { answer: await writtenAnswer(deps, grant, found, context.get(memberContext).timeZone) };
}

/** An automatic answer by itself, to be written or changed. */
export default function AutomaticAnswerPage({ loaderData: { answer } }: Route.ComponentProps) {
  return <AnswerEditor key={answer.id ?? NEW} answer={answer} />;
}
