import { data, Link } from "react-router";
import { getJobsAside, letGoOn, overviewOf } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { peopleTexts } from "../../../texts/en/people";
import type { FormOutcome } from "../../screens/forms/use-form-action";
import { OwnerBadge } from "../../screens/frame/owner-badge";
import { useTray } from "../../screens/frame/tray-data";
import { JobsAside } from "../../screens/office/jobs-aside";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { ID } from "../../server/base/fields.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { speak } from "../../server/base/say.server";
import { jobsAsideView } from "../../server/office/jobs-aside-view.server";
import { type DeskView, overviewView } from "../../server/people/overview-view.server";
import { Cell, ColumnHead, DataTable, RowHead } from "../../ui/layout/data-table";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/overview";

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, peopleTexts, "people.overview");
}

export async function loader({ context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const desks = await overviewOf(deps, grant, member);
  if (!desks.ok) throw data(refusalSaid(desks.error), { status: 403 });
  const reading = readingOf(member, deps.now());
  const aside = jobsAsideView(await getJobsAside(deps, grant), reading);
  return { desks: overviewView(desks.value, reading), aside };
}

/** Lets work go on that was put aside. */
export async function action({ request, context }: Route.ActionArgs) {
  const id = ID.required().validate((await readForm(request)).get("id") ?? undefined);
  if (id.error !== undefined)
    return data<FormOutcome>({ ok: false, problems: {}, problem: id.error.message }, { status: 400 });
  const done = await letGoOn(context.get(depsContext), context.get(grantContext), id.value);
  if (done.ok) return data<FormOutcome>({ ok: true, said: speak("people.itRunsAgain") });
  return data<FormOutcome>({ ok: false, problems: {}, problem: refusalSaid(done.error) }, { status: 409 });
}

const COLUMNS = [
  ["todo", "people.toDo", "our-move"],
  ["waiting", "people.waiting", "waiting"],
  ["overdue", "people.overdue", "waiting"],
  ["resting", "people.resting", "resting"],
] as const;

const LAST_COLUMNS = [
  "people.oldestToDo",
  "people.followUpsDue",
  "people.answeredToday",
  "people.settledToday",
] as const;

/** Who has what, what is oldest, what waits, and what was done today; for those who lead the tray. */
export default function Overview({ loaderData: { desks, aside } }: Route.ComponentProps) {
  const say = useSay(peopleTexts);
  const { tray, members } = useTray();
  const lineOf = (id: string | null) => desks.find(({ memberId }) => memberId === id) ?? null;
  const lines = [null, ...members.filter(({ reads }) => !reads).map(({ id }) => id)];
  return (
    <Page
      title={say("people.overview")}
      beside={
        <>
          <span className="text-soft">{say("people.whoHasWhatIn", { name: tray.name })}</span>
          <Link to={`/${tray.slug}/matrix`} className="ml-auto text-act hover:underline">
            {say("people.byCategory")}
          </Link>
        </>
      }
    >
      <JobsAside jobs={aside} />
      <DataTable
        head={
          <>
            <ColumnHead className="pl-4">{say("people.colleague")}</ColumnHead>
            {COLUMNS.map(([key, name]) => (
              <ColumnHead key={key} side="right">
                {say(name)}
              </ColumnHead>
            ))}
            {LAST_COLUMNS.map((name) => (
              <ColumnHead key={name} side="right">
                {say(name)}
              </ColumnHead>
            ))}
          </>
        }
      >
        {lines.map((id) => (
          <DeskLine key={id} id={id} desk={lineOf(id)} most={Math.max(1, ...desks.map(({ todo }) => todo))} />
        ))}
      </DataTable>
    </Page>
  );
}

type DeskLineProps = { readonly id: string | null; readonly desk: DeskView | null; readonly most: number };

function DeskLine({ id, desk, most }: DeskLineProps) {
  const say = useSay(peopleTexts, commonTexts);
  const { tray, members } = useTray();
  const colleague = members.find((one) => one.id === id) ?? null;
  const owner = id ?? "none";
  const todo = desk?.todo ?? 0;
  return (
    <tr className="hover:bg-ground/70">
      <RowHead className="pl-4">
        <Link to={`/${tray.slug}/open?owner=${owner}`} className="flex items-center gap-3 hover:underline">
          <OwnerBadge ownerId={id} />
          {colleague?.name ?? say("common.nobody")}
        </Link>
        {colleague?.away != null && (
          <span className="block pl-[38px] text-sm text-soft">
            {say("people.awayUntilWhat", {
              back: colleague.away.back,
              what:
                colleague.away.cover === null
                  ? say("people.andNobodyCovers")
                  : say("people.covers", { cover: colleague.away.cover }),
            })}
          </span>
        )}
      </RowHead>
      {COLUMNS.map(([key, , list]) => (
        <Cell key={key} side="right">
          <Count
            count={desk?.[key] ?? 0}
            to={`/${tray.slug}/${key === "todo" ? "open" : list}?owner=${owner}`}
            isLate={key === "overdue"}
          />
          {key === "todo" && (
            <span aria-hidden className="mt-1 ml-auto block h-[3px] w-16 bg-sunk">
              <span className="block h-full bg-act" style={{ width: `${(todo / most) * 100}%` }} />
            </span>
          )}
        </Cell>
      ))}
      <Cell side="right" className={`text-sm ${desk?.isOld === true ? "font-semibold" : "text-soft"}`}>
        {desk?.oldest ?? ""}
      </Cell>
      <Cell side="right">
        <Count count={desk?.followUpsDue ?? 0} to={`/${tray.slug}/follow-ups?whose=everybody`} isLate />
      </Cell>
      <Cell side="right">
        <Plain count={desk?.answeredToday ?? 0} />
      </Cell>
      <Cell side="right">
        <Plain count={desk?.settledToday ?? 0} />
      </Cell>
    </tr>
  );
}

function Count({ count, to, isLate }: { count: number; to: string; isLate: boolean }) {
  const say = useSay();
  if (count === 0) return <Plain count={0} />;
  return (
    <Link to={to} className={`hover:underline ${isLate ? "font-semibold text-late" : "font-semibold"}`}>
      {say({ figure: count })}
    </Link>
  );
}

function Plain({ count }: { count: number }) {
  const say = useSay();
  return count === 0 ? <span className="text-faint">·</span> : say({ figure: count });
}
