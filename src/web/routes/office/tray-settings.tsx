import { useEffect } from "react";
import { data, useFetcher } from "react-router";
import {
  holidaysInCalendar,
  holidaysOfPlace,
  placesWithHolidays,
  refusalInWords,
  setUpHours,
  traySettings,
} from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { useTray } from "../../screens/frame/tray-data";
import { WeekFields } from "../../screens/people/week-fields";
import { LeadsOnly } from "../../screens/shell/leads-only";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { speak } from "../../server/base/say.server";
import { NO_SUCH_PLACE, readHours, type SettingsProblems } from "../../server/office/tray-settings-form.server";
import { weekView } from "../../server/people/week-form.server";
import { Button } from "../../ui/button";
import { notice } from "../../ui/notices";
import { Page } from "../../ui/page";
import { Setting, SettingInput } from "../../ui/setting";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/tray-settings";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, officeTexts, "office.hoursAndHolidays");
}

export async function loader({ context }: Route.LoaderArgs) {
  const grant = context.get(grantContext);
  const { hours, answerWithin } = await traySettings(context.get(depsContext), grant);
  return {
    week: weekView(hours.week),
    zone: hours.zone,
    holidays: hours.holidays,
    answerWithin,
    // Only those who lead it may choose.
    places: grant.role === "lead" ? await placesWithHolidays() : [],
  };
}

const NO_PROBLEMS: SettingsProblems = {};

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const posted = readHours(await readForm(request));
  if (!posted.ok) return data({ saved: null, problems: posted.error, problem: null }, { status: 400 });
  const { calendar, place, ...settings } = posted.value;
  const known = place === "" ? [] : await holidaysOfPlace(deps, grant, place);
  if (known === null)
    return data(
      { saved: null, problems: { place: NO_SUCH_PLACE } as SettingsProblems, problem: null },
      { status: 400 },
    );
  const read = calendar === null ? null : holidaysInCalendar(deps, grant, await calendar.text());
  const holidays = [...new Set([...settings.holidays, ...known, ...(read?.days ?? [])])].toSorted();
  const done = await setUpHours(deps, grant, { ...settings, holidays });
  if (!done.ok)
    return data({ saved: null, problems: NO_PROBLEMS, problem: speak(refusalInWords(done.error)) }, { status: 403 });
  const unread = read?.problems.map(({ line, words }) => speak("office.line", { line, words })).join("; ") ?? "";
  const problems: SettingsProblems =
    unread === "" ? NO_PROBLEMS : { calendar: speak("office.theRestIsKeptOf", { unread }) };
  return data({
    saved: savedInWords(read === null && place === "" ? null : (read?.days.length ?? 0) + known.length),
    problems,
    problem: null,
  });
}

function savedInWords(days: number | null): string {
  if (days === null) return speak("office.hoursAndHolidaysSaved");
  return speak("office.daysMoreAreHolidaysNow", { days });
}

/** When the tray is staffed, and how long it gives itself for an answer. */
export default function TraySettings({
  loaderData: { week, zone, holidays, places, answerWithin },
}: Route.ComponentProps) {
  const say = useSay(officeTexts, commonTexts);
  const { mayLead } = useTray();
  // What a page's own form was answered is forgotten with the next change that is heard of; a fetcher's is not.
  const { Form, data: answer } = useFetcher<typeof action>();
  const problems = answer?.problems ?? NO_PROBLEMS;
  useEffect(() => {
    if (answer?.saved != null) notice(answer.saved);
  }, [answer]);
  return (
    <Page title={say("office.hoursAndHolidays")} beside={!mayLead && <LeadsOnly />}>
      <Form method="post" encType="multipart/form-data" noValidate className="max-w-[960px] px-5 py-2">
        <fieldset disabled={!mayLead}>
          <Setting name={say("common.open")} about={say("office.deadlinesRestsAndRemindersCount", { zone })}>
            <WeekFields week={week} problems={problems} />
            {problems.week !== undefined && (
              <p role="alert" className="mt-1 text-late">
                {problems.week}
              </p>
            )}
          </Setting>
          <Setting name={say("office.answerWithin")} about={say("office.whatIsOurMoveFor")} htmlFor="answer-within">
            <SettingInput
              id="answer-within"
              inputMode="numeric"
              defaultValue={answerWithin}
              problem={problems["answer-within"]}
              className="w-20"
            />{" "}
            {say("office.workingHours")}
          </Setting>
          <Setting name={say("office.holidays")} about={say("office.oneDayALineNothing")} htmlFor="holidays">
            <Holidays key={holidays.join()} days={holidays} problem={problems.holidays} />
          </Setting>
          {mayLead && (
            <>
              <Setting name={say("office.addPublicHolidays")} about={say("office.thoseOfThisYearAnd")} htmlFor="place">
                <PublicHolidays key={`of ${holidays.join()}`} places={places} problem={problems.place} />
              </Setting>
              <Setting
                name={say("office.addFromACalendarFile")}
                about={say("office.eachDayOfTheFile")}
                htmlFor="calendar"
              >
                <SettingInput
                  id="calendar"
                  type="file"
                  accept=".ics,text/calendar"
                  problem={problems.calendar}
                  className="w-full max-w-96 py-1.5"
                />
              </Setting>
            </>
          )}
        </fieldset>
        {answer?.problem != null && (
          <p role="alert" className="pt-3 text-late">
            {answer.problem}
          </p>
        )}
        {mayLead && (
          <Button look="filled" type="submit" className="my-4">
            {say("common.save")}
          </Button>
        )}
      </Form>
    </Page>
  );
}

function Holidays({ days, problem }: { days: readonly string[]; problem: string | undefined }) {
  return (
    <>
      <textarea
        id="holidays"
        name="holidays"
        rows={5}
        placeholder="2026-12-25"
        defaultValue={days.join("\n")}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : "holidays-problem"}
        className="w-full max-w-72 rounded-control border border-rule bg-paper px-2.5 py-1.5 disabled:opacity-60 aria-invalid:border-late"
      />
      {problem !== undefined && (
        <p id="holidays-problem" className="mt-0.5 text-sm text-late">
          {problem}
        </p>
      )}
    </>
  );
}

type PublicHolidaysProps = {
  readonly places: readonly { readonly code: string; readonly name: string }[];
  readonly problem: string | undefined;
};

/** A thousand places are more than a menu drawn here could hold: the browser's own list finds one as it is typed. */
function PublicHolidays({ places, problem }: PublicHolidaysProps) {
  const say = useSay(officeTexts);
  return (
    <>
      <select
        id="place"
        name="place"
        defaultValue=""
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : "place-problem"}
        className="h-9 w-full max-w-72 rounded-control border border-rule bg-paper px-2 disabled:opacity-60 aria-invalid:border-late"
      >
        <option value="">{say("office.noPlace")}</option>
        {places.map(({ code, name }) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
      {problem !== undefined && (
        <p id="place-problem" className="mt-1 text-sm text-late">
          {problem}
        </p>
      )}
    </>
  );
}
