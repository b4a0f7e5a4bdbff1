import { data, Form, Link, useNavigate, useSearchParams, useSubmit } from "react-router";
import { dayInWords } from "../../../core/time/day-words";
import { createRecord, getTypes, register } from "../../../operations/index.server";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { RecordsOutcome } from "../../screens/forms/records-outcome";
import { useTray } from "../../screens/frame/tray-data";
import { blankRecord, RecordForm } from "../../screens/records/record-form";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { saidByField, speak } from "../../server/base/say.server";
import { readRecordStep } from "../../server/records/record-form.server";
import { Button } from "../../ui/button";
import { Page } from "../../ui/page";
import { pageTitle } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/records";

const MAX_QUERY_CHARACTERS = 200;

export function meta({ matches }: Route.MetaArgs) {
  return pageTitle(matches, commonTexts, "common.records");
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const query = new URL(request.url).searchParams;
  const text = (query.get("text") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const isFlat = text !== "" || query.get("as") === "flat";
  const [{ lines, total }, types] = await Promise.all([register(deps, grant, text, isFlat), getTypes(deps)]);
  const zone = context.get(memberContext).timeZone;
  return {
    text,
    isFlat,
    total,
    types: types.map(({ id, name }) => ({ id, name })),
    records: lines.map(({ id, code, kind, title, closed, depth, filed, open, newest }) => ({
      id,
      code,
      kind,
      title,
      closed,
      depth,
      filed,
      open,
      newest: newest === null ? "" : speak(dayInWords(newest, deps.now(), zone)),
    })),
  };
}

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const step = await readRecordStep(deps, grant, await readForm(request));
  if (!step.ok) return data<RecordsOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  if (step.value.do !== "keep") throw new Response(null, { status: 400 });
  const made = await createRecord(deps, grant, step.value.draft);
  if (made.ok) return data<RecordsOutcome>({ ok: true, said: `${made.value.code} is open`, ...idOf(made.value) });
  const { error } = made;
  const problems = error.kind === "problems" ? saidByField(error.problems) : {};
  const problem = error.kind === "problems" ? null : refusalSaid(error);
  return data<RecordsOutcome>({ ok: false, problems, problem }, { status: 409 });
}

const idOf = ({ id, code }: { readonly id: string; readonly code: string }) => ({ id, code });

const COLUMNS = "grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 px-5 md:grid-cols-[minmax(0,1fr)_100px_80px_110px_80px]";
const INDENT = ["", "pl-5", "pl-10", "pl-14"] as const;

/** The register: every client, project and whatever else things are filed to, as a tree or found by typing. */
export default function Records({ loaderData: { text, isFlat, total, types, records } }: Route.ComponentProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray, mayDecide, mayLead } = useTray();
  const submit = useSubmit();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const isNew = params.has("new");
  const setNew = (on: boolean) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        if (on) next.set("new", "");
        else for (const name of ["new", "under"]) next.delete(name);
        return next;
      },
      { replace: true },
    );
  return (
    <Page
      title={say("common.records")}
      beside={
        <>
          <Form
            role="search"
            onChange={(event) => void submit(event.currentTarget, { replace: true })}
            className="sm:ml-3"
          >
            <input
              type="search"
              name="text"
              defaultValue={text}
              aria-label={say("records.findARecord")}
              placeholder={say("records.referenceCodeOrTitle")}
              className="h-8 w-64 rounded-control border border-rule bg-paper px-2.5 placeholder:text-soft"
            />
          </Form>
          {text === "" && (
            <Link to={isFlat ? "?" : "?as=flat"} replace className="text-act hover:underline">
              {isFlat ? say("records.asATree") : say("records.byCode")}
            </Link>
          )}
          <Link to={`/${tray.slug}/arrangement`} className="text-act hover:underline">
            {say("records.myArrangement")}
          </Link>
          <Link to={`/${tray.slug}/record-types`} className="text-act hover:underline">
            {say("records.types")}
          </Link>
          <Link to={`/${tray.slug}/records/import`} className="text-act hover:underline">
            {say("records.importExportCsv")}
          </Link>
          {mayLead && (
            <Link to={`/${tray.slug}/retention`} className="text-act hover:underline">
              {say("records.retention")}
            </Link>
          )}
          {mayDecide && (
            <Button className="ml-auto" onClick={() => setNew(true)}>
              {say("records.newRecord")}
            </Button>
          )}
        </>
      }
    >
      <div className={isNew ? "grid lg:grid-cols-[minmax(0,1fr)_440px]" : ""}>
        <div>
          <div aria-hidden className={`${COLUMNS} border-b border-rule py-1.5 text-xs text-soft max-md:hidden`}>
            <span>{say("records.record")}</span>
            <span>{say("records.type")}</span>
            <span className="text-end">{say("records.filed")}</span>
            <span className="text-end">{say("records.newest")}</span>
            <span className="text-end">{say("common.open")}</span>
          </div>
          {records.length === 0 && (
            <p className="px-5 py-6 text-soft">
              {text === "" ? say("records.thereIsNoRecordYet") : say("records.noRecordHasInIts", { text })}
            </p>
          )}
          <ul>
            {records.map((record) => (
              <li
                key={record.id}
                className={`${COLUMNS} relative min-h-[34px] items-center border-b border-hair hover:bg-ground/70`}
              >
                <span
                  className={`flex min-w-0 items-baseline gap-3 ${INDENT[Math.min(record.depth, INDENT.length - 1)]}`}
                >
                  <span className="w-[84px] shrink-0 text-sm text-soft">{record.code}</span>
                  <Link
                    to={`/${tray.slug}/records/${record.code}`}
                    className="truncate font-serif text-[15px] after:absolute after:inset-0"
                  >
                    {record.title}
                  </Link>
                </span>
                <span className="truncate text-sm text-soft max-md:hidden">
                  {record.closed ? say("records.kindClosed", { kind: record.kind }) : record.kind}
                </span>
                <span className="text-end text-sm max-md:hidden">
                  {record.filed || <span className="text-soft">{say("common.none")}</span>}
                </span>
                <span className="text-end text-sm text-soft max-md:hidden">{record.newest}</span>
                <span className="text-end text-sm">
                  {record.open > 0 ? say("records.countOpen", { open: record.open }) : ""}
                </span>
              </li>
            ))}
          </ul>
          {total > records.length && (
            <p className="px-5 py-3 text-soft">
              {say("records.ofAreShownTypeTo", { count: records.length, total: { figure: total } })}
            </p>
          )}
        </div>
        {mayDecide && isNew && (
          <div className="border-rule p-4 lg:border-l">
            <RecordForm
              record={blankRecord(params.get("under") ?? "")}
              types={types}
              onKept={(code) => void navigate(`/${tray.slug}/records/${code}`)}
              onClose={() => setNew(false)}
            />
          </div>
        )}
      </div>
    </Page>
  );
}
