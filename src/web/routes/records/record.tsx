import { data, Link, redirect, useSearchParams } from "react-router";
import { ok, type Result } from "../../../core/kernel/result";
import {
  activityOn,
  changeRecord,
  closeRecord,
  correspondenceOn,
  type Deps,
  documentsOf,
  type FilingRecord,
  filingsOf,
  mergeRecords,
  type RecordRefusal,
  recordOfCode,
  recordPage,
  retentionOf,
  SHOWN_ON_RECORD,
  type TrayGrant,
  whereMerged,
} from "../../../operations/index.server";
import { recordsTexts } from "../../../texts/en/records";
import type { RecordsOutcome } from "../../screens/forms/records-outcome";
import { useTray } from "../../screens/frame/tray-data";
import { FilingTable } from "../../screens/records/filing-table";
import { RecordActivity } from "../../screens/records/record-activity";
import { RecordCard } from "../../screens/records/record-card";
import { RecordDocuments } from "../../screens/records/record-documents";
import { RecordForm } from "../../screens/records/record-form";
import { RecordHead } from "../../screens/records/record-head";
import { RecordMail } from "../../screens/records/record-mail";
import { depsContext, grantContext, memberContext } from "../../server/base/context.server";
import { readForm } from "../../server/base/read-form.server";
import { refusalSaid } from "../../server/base/refusal.server";
import { readingOf } from "../../server/base/row-view.server";
import { saidByField, speak } from "../../server/base/say.server";
import { type RecordStep, readRecordStep } from "../../server/records/record-form.server";
import {
  documentsView,
  filingsView,
  mailView,
  monthsView,
  recordCardView,
} from "../../server/records/record-view.server";
import { keptView } from "../../server/records/retention-view.server";
import { SidePanel } from "../../ui/layout/side-panel";
import { titled } from "../../ui/texts/page-title";
import { useSay } from "../../ui/texts/use-say";
import type { Route } from "./+types/record";

export function meta({ params }: Route.MetaArgs) {
  return titled(params.code);
}

const PARTS = {
  mail: "records.correspondence",
  filings: "records.asATable",
  documents: "records.documents",
  activity: "records.overTime",
} as const;
const MAX_TEXT = 200;

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const page = await recordPage(deps, grant, params.code);
  if (page === null) {
    const merged = await whereMerged(deps, grant, params.code);
    if (merged !== null) throw redirect(`/${grant.tray.slug}/records/${merged}`);
    throw data(speak("records.thereIsNoRecordOf"), { status: 404 });
  }
  const reading = readingOf(member, deps.now());
  const asked = new URL(request.url).searchParams;
  const part = asked.get("part");
  const text = (asked.get("text") ?? "").slice(0, MAX_TEXT);
  const most = Math.max(SHOWN_ON_RECORD, Number.parseInt(asked.get("most") ?? "", 10) || 0);
  const isMail = part === null || !(part in PARTS) || part === "mail";
  return {
    filings: part === "filings" ? filingsView(await filingsOf(deps, grant, page.entry), reading) : null,
    documents:
      part === "documents"
        ? documentsView(await documentsOf(deps, grant, page.record, text), grant.tray.slug, params.code, reading)
        : null,
    activity: part === "activity" ? monthsView(await activityOn(deps, grant, page.record, reading.zone)) : null,
    mail: isMail ? mailView(await correspondenceOn(deps, grant, page.record, { text, most }), reading) : null,
    text,
    record: page.record,
    count: page.count,
    now: reading.now,
    card: recordCardView(page, reading),
    kept: keptView(await retentionOf(deps, grant, page.record.id), reading),
    parent: page.parent === null ? null : { code: page.parent.code, title: page.parent.title },
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const record = await recordOfCode(deps, grant, params.code);
  if (record === null) throw data(speak("records.thereIsNoRecordOf"), { status: 404 });
  const step = await readRecordStep(deps, grant, await readForm(request));
  if (!step.ok) return data<RecordsOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carry(deps, grant, record, step.value);
  if (done.ok) return data<RecordsOutcome>({ ok: true, ...done.value });
  const { error } = done;
  const problems = error.kind === "problems" ? saidByField(error.problems) : {};
  const problem = error.kind === "problems" ? null : refusalSaid(error);
  return data<RecordsOutcome>({ ok: false, problems, problem }, { status: 409 });
}

type Said = { readonly id: string; readonly code: string; readonly said: string };

async function carry(
  deps: Deps,
  grant: TrayGrant,
  { id, code }: FilingRecord,
  step: RecordStep,
): Promise<Result<Said, RecordRefusal>> {
  if (step.do === "merge") {
    const merged = await mergeRecords(deps, grant, id, step.into);
    if (!merged.ok) return merged;
    const { into, conversations } = merged.value;
    const came = speak("common.conversations", { count: conversations });
    return ok({ id: into.id, code: into.code, said: speak("records.mergedInto", { code: into.code, came }) });
  }
  const done =
    step.do === "keep"
      ? await changeRecord(deps, grant, id, step.draft)
      : await closeRecord(deps, grant, id, step.do === "close");
  const said = {
    keep: speak("records.saved", { code }),
    close: speak("records.isClosed", { code }),
    reopen: speak("records.isOpenAgain", { code }),
  }[step.do];
  return done.ok ? ok({ id, code, said }) : done;
}

/** Everything about a record in one place: what is open first, the correspondence of both sides, and what the register says. */
export default function RecordPage({ loaderData }: Route.ComponentProps) {
  const say = useSay(recordsTexts);
  const { record, count, card, kept, parent, mail, filings, documents, activity, text, now } = loaderData;
  const { mayDecide } = useTray();
  const [params, setParams] = useSearchParams();
  const isEdited = mayDecide && params.has("edit");
  const setEdited = (on: boolean) => setParams(on ? { edit: "" } : {}, { replace: true });
  const part =
    filings !== null ? "filings" : documents !== null ? "documents" : activity !== null ? "activity" : "mail";
  return (
    <main
      aria-label={record.code}
      className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5 lg:grid lg:grid-cols-[minmax(0,1fr)_380px] lg:grid-rows-[minmax(0,1fr)] lg:overflow-hidden"
    >
      <div className="lg:min-h-0 lg:overflow-y-auto">
        <RecordHead
          {...{ record, count, parent }}
          onEdit={mayDecide && !isEdited ? () => setEdited(true) : undefined}
        />
        <nav
          aria-label={say("records.partsOfTheRecord")}
          className="flex gap-5 overflow-x-auto border-b border-rule px-5"
        >
          {Object.entries(PARTS).map(([key, name]) => (
            <Link
              key={key}
              to={key === "mail" ? "?" : `?part=${key}`}
              aria-current={key === part ? "page" : undefined}
              className={`border-b-2 py-1.5 whitespace-nowrap ${key === part ? "border-act font-semibold" : "border-transparent text-soft hover:text-act"}`}
            >
              {say(name)}
            </Link>
          ))}
        </nav>
        {filings !== null && <FilingTable filings={filings} record={record} />}
        {documents !== null && (
          <RecordDocuments documents={documents} code={record.code} closed={record.closed} text={text} />
        )}
        {activity !== null && <RecordActivity months={activity} />}
        {mail !== null && <RecordMail mail={mail} code={record.code} text={text} now={now} />}
      </div>
      <SidePanel label={say("records.whatTheRegisterSays")} className="border-rule p-4 max-lg:border-t lg:border-l">
        {isEdited ? (
          <RecordForm
            key={card.edited.version}
            record={card.edited}
            types={[]}
            onKept={() => setEdited(false)}
            onClose={() => setEdited(false)}
          />
        ) : (
          <RecordCard
            card={card}
            kept={kept}
            recordId={record.id}
            code={record.code}
            closed={record.closed}
            text={text}
          />
        )}
      </SidePanel>
    </main>
  );
}
