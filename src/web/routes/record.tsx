import { data, Link, redirect, useSearchParams } from "react-router";
import { ok, type Result } from "../../core/kernel/result";
import { dayAndTime } from "../../core/standing/day-words";
import { STANDING_NAMES } from "../../core/standing/standing";
import {
  changeRecord,
  closeRecord,
  type Deps,
  documentsOf,
  type FilingRecord,
  filingsOf,
  mergeRecords,
  type RecordRefusal,
  recordOfCode,
  recordPage,
  refusalInWords,
  type TrayGrant,
  whereMerged,
} from "../../operations/index.server";
import { FiledConversation } from "../screens/filed-conversation";
import { FilingTable } from "../screens/filing-table";
import { RecordCard } from "../screens/record-card";
import { RecordDocuments } from "../screens/record-documents";
import { RecordForm } from "../screens/record-form";
import type { RecordsOutcome } from "../screens/records-outcome";
import { useTray } from "../screens/tray-data";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import { type RecordStep, readRecordStep } from "../server/record-form.server";
import { documentsView, filingsView, recordCardView } from "../server/record-view.server";
import { readingOf, rowView } from "../server/words.server";
import { Button } from "../ui/button";
import type { Route } from "./+types/record";

export function meta({ params }: Route.MetaArgs) {
  return [{ title: `${params.code} · Common Tray` }];
}

const PARTS = { mail: "Correspondence", filings: "As a table", documents: "Documents" } as const;

export async function loader({ request, params, context }: Route.LoaderArgs) {
  const [deps, grant, member] = [context.get(depsContext), context.get(grantContext), context.get(memberContext)];
  const page = await recordPage(deps, grant, params.code);
  if (page === null) {
    const merged = await whereMerged(deps, grant, params.code);
    if (merged !== null) throw redirect(`/${grant.tray.slug}/records/${merged}`);
    throw data("There is no record of this code.", { status: 404 });
  }
  const reading = readingOf(member, deps.now());
  const part = new URL(request.url).searchParams.get("part");
  return {
    filings: part === "filings" ? filingsView(await filingsOf(deps, grant, page.entry), reading) : null,
    documents: part === "documents" ? documentsView(await documentsOf(deps, grant, page.record), reading) : null,
    record: page.record,
    card: recordCardView(page, reading),
    parent: page.parent === null ? null : { code: page.parent.code, title: page.parent.title },
    now: reading.now,
    conversations: page.conversations.map(({ messages, traySlug, ...row }) => ({
      row: rowView(row, reading),
      traySlug,
      standingName: STANDING_NAMES[row.standing],
      messages: messages.map(({ direction, fromName, ownText, sentAt }) => ({
        ours: direction === "out",
        who: fromName,
        text: ownText,
        when: dayAndTime(sentAt, reading.now, reading.zone),
      })),
    })),
  };
}

export async function action({ request, params, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const record = await recordOfCode(deps, grant, params.code);
  if (record === null) throw data("There is no record of this code.", { status: 404 });
  const step = await readRecordStep(deps, grant, await request.formData());
  if (!step.ok) return data<RecordsOutcome>({ ok: false, problems: step.error, problem: null }, { status: 400 });
  const done = await carry(deps, grant, record, step.value);
  if (done.ok) return data<RecordsOutcome>({ ok: true, ...done.value });
  const { error } = done;
  const problems = error.kind === "problems" ? { ...error.problems } : {};
  const problem = error.kind === "problems" ? null : refusalInWords(error);
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
    const came = conversations === 1 ? "1 conversation" : `${conversations.toLocaleString("en")} conversations`;
    return ok({ id: into.id, code: into.code, said: `Merged into ${into.code}: ${came}` });
  }
  const done =
    step.do === "keep"
      ? await changeRecord(deps, grant, id, step.draft)
      : await closeRecord(deps, grant, id, step.do === "close");
  const said = { keep: `${code} is kept`, close: `${code} is closed`, reopen: `${code} is open again` }[step.do];
  return done.ok ? ok({ id, code, said }) : done;
}

/** Everything about a record in one place: what is open first, the correspondence of both sides, and what the register says. */
export default function RecordPage({ loaderData }: Route.ComponentProps) {
  const { record, card, parent, conversations, filings, documents, now } = loaderData;
  const { tray, mayDecide } = useTray();
  const [params, setParams] = useSearchParams();
  const isEdited = mayDecide && params.has("edit");
  const setEdited = (on: boolean) => setParams(on ? { edit: "" } : {}, { replace: true });
  const part = filings !== null ? "filings" : documents !== null ? "documents" : "mail";
  const isOpen = ({ row }: (typeof conversations)[number]) => row.standing !== "settled" && row.standing !== "bin";
  const open = conversations.filter(isOpen);
  const parts = [
    ["Open", open],
    ["Settled", conversations.filter((one) => !isOpen(one))],
  ] as const;
  return (
    <main
      aria-label={record.code}
      className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5 lg:grid lg:grid-cols-[minmax(0,1fr)_380px] lg:grid-rows-[minmax(0,1fr)] lg:overflow-hidden"
    >
      <div className="lg:min-h-0 lg:overflow-y-auto">
        <header className="border-b border-rule px-5 pt-4 pb-3">
          <p className="text-sm text-soft">
            <Link to={`/${tray.slug}/records`} className="text-act hover:underline">
              Records
            </Link>
            {parent !== null && (
              <>
                {" / "}
                <Link to={`/${tray.slug}/records/${parent.code}`} className="text-act hover:underline">
                  {parent.code} {parent.title}
                </Link>
              </>
            )}
          </p>
          <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <h1 className="mr-auto min-w-0 font-serif text-2xl">{record.title}</h1>
            {mayDecide && !record.closed && (
              <Link
                to={`/${tray.slug}/write?record=${record.code}`}
                className="inline-flex h-8 items-center rounded-control border border-rule px-3 font-semibold hover:border-act"
              >
                Write…
              </Link>
            )}
            {mayDecide && !isEdited && (
              <Button look="quiet" onClick={() => setEdited(true)}>
                Change…
              </Button>
            )}
          </div>
          <p className="text-soft">
            {record.code} · {record.kind}
            {record.closed ? ", closed" : ""} ·{" "}
            {conversations.length === 1 ? "1 conversation" : `${conversations.length} conversations`}
            {open.length > 0 && `, ${open.length} open`}
          </p>
        </header>
        <nav aria-label="Parts of the record" className="flex gap-5 border-b border-rule px-5">
          {Object.entries(PARTS).map(([key, name]) => (
            <Link
              key={key}
              to={key === "mail" ? "?" : `?part=${key}`}
              aria-current={key === part ? "page" : undefined}
              className={`border-b-2 py-1.5 ${key === part ? "border-act font-semibold" : "border-transparent text-soft hover:text-act"}`}
            >
              {name}
            </Link>
          ))}
        </nav>
        {filings !== null && <FilingTable filings={filings} />}
        {documents !== null && <RecordDocuments documents={documents} />}
        {part === "mail" && conversations.length === 0 && (
          <p className="px-5 py-6 text-soft">
            Nothing is filed here yet. Open a conversation and press f to file it to {record.code}.
          </p>
        )}
        {parts.map(([name, some]) =>
          part !== "mail" || some.length === 0 ? null : (
            <section key={name} aria-label={name}>
              <h2 className="flex items-baseline gap-2 border-b border-rule bg-ground px-5 py-0.5 text-sm font-semibold">
                {name} <span className="font-normal text-soft">{some.length}</span>
              </h2>
              {some.map((conversation) => (
                <FiledConversation key={conversation.row.id} {...conversation} now={now} />
              ))}
            </section>
          ),
        )}
      </div>
      <aside
        aria-label="What the register says"
        className="border-rule p-4 lg:min-h-0 max-lg:border-t lg:overflow-y-auto lg:border-l"
      >
        {isEdited ? (
          <RecordForm
            key={card.edited.version}
            record={card.edited}
            types={[]}
            onKept={() => setEdited(false)}
            onClose={() => setEdited(false)}
          />
        ) : (
          <RecordCard card={card} code={record.code} closed={record.closed} />
        )}
      </aside>
    </main>
  );
}
