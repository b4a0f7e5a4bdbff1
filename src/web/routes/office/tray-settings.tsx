import { data } from "react-router";
import {
  holidaysInCalendar,
  holidaysOfPlace,
  placesWithHolidays,
  setUpHours,
  traySettings,
} from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import { SettingsForm } from "../../screens/forms/settings-form";
import { type FormOutcome, type FormProblems, useFormAction } from "../../screens/forms/use-form-action";
import { useTray } from "../../screens/frame/tray-data";
import { HolidayList } from "../../screens/office/holiday-list";
import { WeekFields } from "../../screens/people/week-fields";
import { LeadsOnly } from "../../screens/shell/leads-only";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { speak } from "../../server/base/say.server";
import { NO_SUCH_PLACE, readHours } from "../../server/office/tray-settings-form.server";
import { weekView } from "../../server/people/week-form.server";
import { Setting, SettingInput } from "../../ui/layout/setting";
import { Page } from "../../ui/page";
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

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const posted = readHours(await readForm(request));
  if (!posted.ok) return refused(posted.error, null, 400);
  const { calendar, place, ...settings } = posted.value;
  const known = place === "" ? [] : await holidaysOfPlace(deps, grant, place);
  if (known === null) return refused({ place: NO_SUCH_PLACE }, null, 400);
  const read = calendar === null ? null : holidaysInCalendar(deps, grant, await calendar.text());
  const holidays = [...new Set([...settings.holidays, ...known, ...(read?.days ?? [])])].toSorted();
  const done = await setUpHours(deps, grant, { ...settings, holidays });
  if (!done.ok) return refused({}, refusalSaid(done.error), 403);
  const unread = read?.problems.map(({ line, words }) => speak("office.line", { line, words })).join("; ") ?? "";
  return data<FormOutcome>({
    ok: true,
    said: savedInWords(read === null && place === "" ? null : (read?.days.length ?? 0) + known.length),
    ...(unread !== "" && { problems: { calendar: speak("office.theRestIsKeptOf", { unread }) } }),
  });
}

function refused(problems: FormProblems, problem: string | null, status: number) {
  return data<FormOutcome>({ ok: false, problems, problem }, { status });
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
  const step = useFormAction("tray-settings");
  const { problems } = step;
  return (
    <Page title={say("office.hoursAndHolidays")} beside={!mayLead && <LeadsOnly />}>
      <div className="max-w-[960px] px-5 py-2">
        <SettingsForm step={step} mayChange={mayLead} hasFiles>
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
          <Setting name={say("office.holidays")} about={say("office.nothingIsDueOnThem")}>
            <HolidayList key={holidays.join()} days={holidays} problem={problems.holidays} mayChange={mayLead} />
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
        </SettingsForm>
      </div>
    </Page>
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
