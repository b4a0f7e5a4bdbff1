import { data } from "react-router";
import {
  colleaguesAway,
  comeBack,
  ownTimes,
  peopleOfTrays,
  planTimeOff,
  setOwnWeek,
  traySettings,
} from "../../../operations/index.server";
import { peopleTexts } from "../../../texts/en/people";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { AwayForm } from "../../screens/people/away-form";
import { AwayList } from "../../screens/people/away-list";
import { OwnWeek } from "../../screens/people/own-week";
import { depsContext, grantContext, grantsContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { readAwayStep } from "../../server/people/away-form.server";
import { timeOffView } from "../../server/people/time-off-view.server";
import { weekView } from "../../server/people/week-form.server";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/away";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.hoursAndTimeOff");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const grants = context.get(grantsContext);
  const reading = readingOf(member, deps.now());
  const [{ week, timesOff }, away, settings, people] = await Promise.all([
    ownTimes(deps, grant),
    colleaguesAway(deps, grant),
    traySettings(deps, grant),
    peopleOfTrays(deps, grants),
  ]);
  return {
    week: week === null ? null : weekView(week),
    trayWeek: weekView(settings.hours.week),
    own: timesOff.map((timeOff) => timeOffView(timeOff, people, reading)),
    away: away.map((timeOff) => timeOffView(timeOff, people, reading)),
    trays: people.map(({ tray, members }) => ({
      id: tray.id,
      name: tray.name,
      members: members.filter(({ role }) => role !== "reader").map(({ id, name }) => ({ id, name })),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const step = await readAwayStep(deps, grant, await readForm(request), member.timeZone);
  if (!step.ok) return data<FormOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const given = step.value;
  if (given.do === "week") {
    await setOwnWeek(deps, grant, given.week);
    return data<FormOutcome>({ ok: true, said: speak("people.yourHoursAreSaved") });
  }
  const done =
    given.do === "plan" ? await planTimeOff(deps, grant, given) : await comeBack(deps, grant, given.memberId, given.id);
  if (done.ok)
    return data<FormOutcome>({
      ok: true,
      said: speak(given.do === "plan" ? "people.timeOffPlanned" : "people.timeOffEnded"),
    });
  return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
}

/** When a member works, when she is away and who covers, and who else is. */
export default function Away({ loaderData: { week, trayWeek, own, away, trays } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  return (
    <Page title={say("people.hoursAndTimeOff")}>
      <div className="grid gap-x-12 gap-y-6 px-5 py-4 lg:grid-cols-2">
        <div className="space-y-6">
          <AwayForm trays={trays} />
          <AwayList title={say("people.myTimeOff")} none={say("people.noneIsPlanned")} times={own} isOwn />
        </div>
        <div className="space-y-6">
          <OwnWeek week={week} trayWeek={trayWeek} />
          <AwayList title={say("people.whoElseIsAway")} none={say("people.nobodyAsFarAsIs")} times={away} />
        </div>
      </div>
    </Page>
  );
}
