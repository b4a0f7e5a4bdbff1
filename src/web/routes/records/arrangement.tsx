import { data, Link } from "react-router";
import { editArrangement, handOutArrangement, lookAtArrangement } from "../../../operations/index.server";
import { recordsTexts } from "../../../texts/en/records";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { ArrangementScreen } from "../../screens/records/arrangement-screen";
import { mostBytesTo } from "../../server/base/body-limits";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { readArrangementStep } from "../../server/records/arrangement-form.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/arrangement";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, recordsTexts, "records.myArrangement");
}

export async function loader({ context }: Route.LoaderArgs) {
  const { tree, version, isHanded, records } = await lookAtArrangement(
    context.get(depsContext),
    context.get(grantContext),
  );
  return {
    tree,
    version,
    isHanded,
    records: records.map(({ id, code, title, closed, open }) => ({ id, code, title, closed, open })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const refused = (problem: string, status: number) =>
    data<FormOutcome>({ ok: false, problems: {}, problem }, { status });
  const step = readArrangementStep(await readForm(request, mostBytesTo("routes/records/arrangement")));
  if (!step.ok) return refused(step.error, 400);
  if (step.value.do === "keep") {
    const kept = await editArrangement(deps, grant, step.value.tree, step.value.version);
    return kept.ok ? data<FormOutcome>({ ok: true, said: "" }) : refused(refusalSaid(kept.error), 409);
  }
  const handed = await handOutArrangement(deps, grant, step.value.to, speak("records.from", { name: member.name }));
  if (!handed.ok) return refused(refusalSaid(handed.error), 409);
  const count = handed.value;
  const said = count === 0 ? speak("records.whoeverOfThemHasNo") : speak("records.handedToColleagues", { count });
  return data<FormOutcome>({ ok: true, said });
}

/** The records that a member works with, as she likes them: in folders, under names of her own, in her order. */
export default function ArrangementPage({ loaderData }: Route.ComponentProps) {
  const say = useSay(recordsTexts);
  const { tray } = useTray();
  return (
    <Page
      title={say("records.myArrangement")}
      beside={
        <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
          {say("records.allRecords")}
        </Link>
      }
    >
      <ArrangementScreen {...loaderData} />
    </Page>
  );
}
