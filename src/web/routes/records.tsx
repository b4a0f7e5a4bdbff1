import { Form, Link, useSubmit } from "react-router";
import { dayInWords } from "../../core/standing/day-words";
import { register } from "../../operations/index.server";
import { useTray } from "../screens/tray-data";
import { depsContext, grantContext, memberContext } from "../server/context.server";
import type { Route } from "./+types/records";

const MAX_QUERY_CHARACTERS = 200;

export function meta() {
  return [{ title: "Records · Common Tray" }];
}

export async function loader({ request, context }: Route.LoaderArgs) {
  const deps = context.get(depsContext);
  const text = (new URL(request.url).searchParams.get("text") ?? "").trim().slice(0, MAX_QUERY_CHARACTERS);
  const lines = await register(deps, context.get(grantContext), text);
  const zone = context.get(memberContext).timeZone;
  return {
    text,
    records: lines.map(({ id, code, kind, title, closed, filed, open, newest }) => ({
      ...{ id, code, kind, title, closed, filed, open },
      newest: newest === null ? "" : dayInWords(newest, deps.now(), zone),
    })),
  };
}

const COLUMNS =
  "grid grid-cols-[96px_minmax(0,1fr)_auto] gap-x-4 px-5 md:grid-cols-[96px_minmax(0,1fr)_90px_90px_110px_80px]";

export default function Records({ loaderData: { text, records } }: Route.ComponentProps) {
  const { tray } = useTray();
  const submit = useSubmit();
  return (
    <main className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5">
      <div className="flex flex-wrap items-center gap-4 border-b border-rule px-5 py-2.5">
        <h1 className="font-serif text-xl">Records</h1>
        <Form role="search" className="ml-auto" onChange={(event) => submit(event.currentTarget, { replace: true })}>
          <input
            type="search"
            name="text"
            defaultValue={text}
            aria-label="Find a record"
            placeholder="Reference code or title"
            className="h-8 w-64 rounded-control border border-rule bg-ground px-2.5 placeholder:text-soft"
          />
        </Form>
      </div>
      <div aria-hidden className={`${COLUMNS} border-b border-rule py-1.5 text-xs text-soft max-md:hidden`}>
        <span>Code</span>
        <span>Title</span>
        <span>Kind</span>
        <span className="text-right">Filed</span>
        <span className="text-right">Newest</span>
        <span className="text-right">Open</span>
      </div>
      {records.length === 0 && <p className="px-5 py-6 text-soft">No record has “{text}” in its code or title.</p>}
      <ul>
        {records.map((record) => (
          <li
            key={record.id}
            className={`${COLUMNS} relative h-[34px] items-center border-b border-hair hover:bg-ground/70`}
          >
            <span className="text-sm text-soft">{record.code}</span>
            <Link
              to={`/${tray.slug}/records/${record.code}`}
              className="truncate font-serif text-[15px] after:absolute after:inset-0"
            >
              {record.title}
            </Link>
            <span className="text-sm text-soft max-md:hidden">
              {record.closed ? `${record.kind}, closed` : record.kind}
            </span>
            <span className="text-right text-sm max-md:hidden">
              {record.filed || <span className="text-soft">none</span>}
            </span>
            <span className="text-right text-sm text-soft max-md:hidden">{record.newest}</span>
            <span className="text-right text-sm">{record.open > 0 ? `${record.open} open` : ""}</span>
          </li>
        ))}
      </ul>
    </main>
  );
}
