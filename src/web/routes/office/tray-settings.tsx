import { X } from "lucide-react";
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
import { useTray } from "../../screens/frame/tray-data";
import { WeekFields } from "../../screens/people/week-fields";
import { depsContext, grantContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { NO_SUCH_PLACE, readTraySettings, type SettingsProblems } from "../../server/office/tray-settings-form.server";
import { weekView } from "../../server/people/week-form.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import type { Route } from "./+types/tray-settings";

export function meta() {
  return [{ title: "Tray settings · Common Tray" }];
}

export async function loader({ context }: Route.LoaderArgs) {
  const grant = context.get(grantContext);
  const { hours, junkSenders, ...settings } = await traySettings(context.get(depsContext), grant);
  return {
    week: weekView(hours.week),
    zone: hours.zone,
    holidays: hours.holidays,
    ...settings,
    // Only those who lead it may choose.
    places: grant.role === "lead" ? await placesWithHolidays() : [],
    junkSenders: junkSenders.map(({ address, by }) => ({ address, by })),
  };
}

const NO_PROBLEMS: SettingsProblems = {};

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const posted = readTraySettings(await readForm(request));
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
    return data({ saved: null, problems: NO_PROBLEMS, problem: refusalInWords(done.error) }, { status: 403 });
  const unread = read?.problems.map(({ line, words }) => `line ${line}: ${words}`).join("; ") ?? "";
  const problems: SettingsProblems =
    unread === "" ? NO_PROBLEMS : { calendar: `The rest is kept. Of the file, ${unread}.` };
  return data({
    saved: savedInWords(read === null && place === "" ? null : (read?.days.length ?? 0) + known.length),
    problems,
    problem: null,
  });
}

function savedInWords(days: number | null): string {
  if (days === null) return "Tray settings saved";
  return days === 1 ? "1 day more is a holiday now" : `${days} days more are holidays now`;
}

/** What is the same for everybody in the tray: when it is staffed, when its bin is emptied, whose mail is junk. */
export default function TraySettings({ loaderData }: Route.ComponentProps) {
  const { week, zone, holidays, places, binDays, junkDays, filesFirst, answerWithin, junkSenders } = loaderData;
  const { mayLead } = useTray();
  // What a page's own form was answered is forgotten with the next change that is heard of; a fetcher's is not.
  const { Form, data: answer } = useFetcher<typeof action>();
  const problems = answer?.problems ?? NO_PROBLEMS;
  useEffect(() => {
    if (answer?.saved != null) notice(answer.saved);
  }, [answer]);
  return (
    <main
      aria-label="Tray settings"
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper px-5 py-4 sm:mx-4"
    >
      <h1 className="font-serif text-xl">Tray settings</h1>
      {!mayLead && <p className="mt-1 text-soft">Only leads of the tray can change this.</p>}
      <Form
        method="post"
        encType="multipart/form-data"
        noValidate
        className="mt-3 grid gap-x-12 gap-y-5 lg:grid-cols-[540px_minmax(0,400px)]"
      >
        <fieldset disabled={!mayLead}>
          <legend className="text-sm font-semibold">When it is staffed, in the time of {zone}</legend>
          <WeekFields week={week} problems={problems} />
          {problems.week !== undefined && (
            <p role="alert" className="mt-1 text-late">
              {problems.week}
            </p>
          )}
          <Field
            label="Working hours within which an answer of ours is due"
            name="answer-within"
            inputMode="numeric"
            defaultValue={answerWithin}
            problem={problems["answer-within"]}
            className="mt-4 max-w-72"
          />
        </fieldset>
        <fieldset disabled={!mayLead} className="space-y-4">
          <Holidays key={holidays.join()} days={holidays} problem={problems.holidays} />
          {mayLead && <PublicHolidays key={`of ${holidays.join()}`} places={places} problem={problems.place} />}
          <Field
            label="More of them, from a calendar file (.ics)"
            name="calendar"
            type="file"
            accept=".ics,text/calendar"
            problem={problems.calendar}
            className="max-w-96 [&_input]:py-1.5"
          />
          <Field
            label="Days until what lies in the bin is deleted"
            name="bin-days"
            inputMode="numeric"
            placeholder="never"
            defaultValue={binDays ?? ""}
            problem={problems["bin-days"]}
            className="max-w-72"
          />
          <Field
            label="Days until what was called junk is deleted"
            name="junk-days"
            inputMode="numeric"
            placeholder="never"
            defaultValue={junkDays ?? ""}
            problem={problems["junk-days"]}
            className="max-w-72"
          />
          <label className="flex min-h-6 cursor-pointer items-center gap-2.5">
            <input type="checkbox" name="files-first" defaultChecked={filesFirst} className="size-4 accent-act" />
            Settle only what is filed to a record
          </label>
          {answer?.problem != null && (
            <p role="alert" className="text-late">
              {answer.problem}
            </p>
          )}
          {mayLead && (
            <Button look="filled" type="submit">
              Save
            </Button>
          )}
        </fieldset>
      </Form>
      <section aria-label="Junk senders" className="mt-7 max-w-4xl">
        <h2 className="border-b border-rule pb-1 text-sm font-semibold">Mail of these goes straight to Junk</h2>
        {junkSenders.length === 0 && (
          <p className="py-2 text-soft">Nobody’s. A conversation in Junk offers it for its sender.</p>
        )}
        <ul>
          {junkSenders.map(({ address, by }) => (
            <JunkSender key={address} address={address} by={by} />
          ))}
        </ul>
      </section>
    </main>
  );
}

function Holidays({ days, problem }: { days: readonly string[]; problem: string | undefined }) {
  return (
    <div>
      <label htmlFor="holidays" className="mb-1 block text-sm font-semibold">
        Holidays, one a line
      </label>
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
    </div>
  );
}

type PublicHolidaysProps = {
  readonly places: readonly { readonly code: string; readonly name: string }[];
  readonly problem: string | undefined;
};

/** A thousand places are more than a menu drawn here could hold: the browser's own list finds one as it is typed. */
function PublicHolidays({ places, problem }: PublicHolidaysProps) {
  return (
    <div>
      <label htmlFor="place" className="mb-1 block text-sm font-semibold">
        More of them, the public holidays of this year and the next in
      </label>
      <select
        id="place"
        name="place"
        defaultValue=""
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : "place-problem"}
        className="h-9 w-full max-w-72 rounded-control border border-rule bg-paper px-2 disabled:opacity-60 aria-invalid:border-late"
      >
        <option value="">no place</option>
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
    </div>
  );
}

function JunkSender({ address, by }: { address: string; by: string }) {
  const { tray, members, mayDecide } = useTray();
  const fetcher = useFetcher();
  return (
    <li className="flex items-center gap-3 border-b border-hair py-1">
      <span className="min-w-0 flex-1 truncate">{address}</span>
      <span className="text-sm text-soft">{members.find(({ id }) => id === by)?.name ?? "a former colleague"}</span>
      {mayDecide && (
        <fetcher.Form method="post" action={`/${tray.slug}/junk-sender`}>
          <input type="hidden" name="address" value={address} />
          <button
            type="submit"
            name="junk"
            value="false"
            aria-label={`No longer junk: ${address}`}
            className="grid size-7 place-items-center rounded-control text-soft hover:bg-sunk hover:text-ink"
          >
            <X size={14} aria-hidden />
          </button>
        </fetcher.Form>
      )}
    </li>
  );
}
