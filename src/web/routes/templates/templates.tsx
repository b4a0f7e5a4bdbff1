import { data, Link } from "react-router";
import type { Result } from "../../../core/kernel/result";
import {
  type Deps,
  dropTemplate,
  editTemplate,
  getTemplates,
  type TemplateRefusal,
  type TrayGrant,
} from "../../../operations/index.server";
import { templatesTexts } from "../../../texts/en/templates";
import type { FormProblems } from "../../screens/forms/use-form-action";
import type { KeptListOutcome } from "../../screens/forms/use-kept-list";
import { useTray } from "../../screens/frame/tray-data";
import { TemplateList } from "../../screens/templates/template-list";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import {
  readTemplateStep,
  type TemplateStep,
  templateProblemsByField,
} from "../../server/templates/template-form.server";
import { listedTemplate } from "../../server/templates/template-view.server";
import { BUTTON_LINK } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/templates";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, templatesTexts, "templates.templates");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const reading = readingOf(context.get(memberContext), deps.now(), grant.covering);
  return (await getTemplates(deps, grant)).map((template) => listedTemplate(template, reading));
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = readTemplateStep(await readForm(request, mostBytesTo("routes/templates/templates")));
  if (!step.ok) return refused({}, step.error, 400);
  const done = await carry(deps, grant, step.value);
  if (done.ok) return data<KeptListOutcome>({ ok: true, ...done.value });
  if (done.error.kind === "template-problems") return refused(templateProblemsByField(done.error.problems), null, 400);
  return refused({}, refusalSaid(done.error), 409);
}

function refused(problems: FormProblems, problem: string | null, status: number) {
  return data<KeptListOutcome>({ ok: false, problems, problem }, { status });
}

type Done = { readonly said: string; readonly droppedId: string | null };

async function carry(deps: Deps, grant: TrayGrant, step: TemplateStep): Promise<Result<Done, TemplateRefusal>> {
  const saying = (done: Result<unknown, TemplateRefusal>, said: string, droppedId: string | null = null) =>
    done.ok ? ({ ok: true, value: { said, droppedId } } as const) : done;
  switch (step.do) {
    case "keep":
      return saying(await editTemplate(deps, grant, step.template), speak("templates.saved"));
    case "drop":
      return saying(await dropTemplate(deps, grant, step.id, true), "", step.id);
    case "bring-back":
      return saying(await dropTemplate(deps, grant, step.id, false), speak("templates.broughtBack"));
  }
}

/** The prepared texts that a member can write with. */
export default function Templates({ loaderData: templates }: Route.ComponentProps) {
  const say = useSay(templatesTexts);
  const { tray, mayDecide } = useTray();
  return (
    <Page
      title={say("templates.templates")}
      beside={
        mayDecide && (
          <Link to={`/${tray.slug}/templates/new`} className={`${BUTTON_LINK} ms-auto`}>
            {say("templates.newTemplate")}
          </Link>
        )
      }
    >
      <div className="max-w-[960px] space-y-4 px-5 py-4">
        <p className="max-w-prose text-soft">{say("templates.whatTheyAre")}</p>
        <TemplateList templates={templates} />
      </div>
    </Page>
  );
}
