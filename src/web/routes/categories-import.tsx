import { useState } from "react";
import { data, Link, useFetcher } from "react-router";
import { CATEGORY_COLUMNS } from "../../core/categories/category-table";
import { importCategories, type ReportedLine, refusalInWords, tryCategoryTable } from "../../operations/index.server";
import { useDecisions } from "../screens/decisions";
import { useTray } from "../screens/tray-data";
import { depsContext, grantContext } from "../server/context.server";
import { Button } from "../ui/button";
import type { Route } from "./+types/categories-import";

const MAX_CHARACTERS = 1_000_000;

export function meta() {
  return [{ title: "Import categories · Common Tray" }];
}

type Line = Pick<ReportedLine, "line" | "path" | "kind"> & { readonly problem: string | null };
type Report = { readonly lines: readonly Line[]; readonly stepId: string | null; readonly isDone: boolean };

export async function action({ request, context }: Route.ActionArgs) {
  const [deps, grant] = [context.get(depsContext), context.get(grantContext)];
  const form = await request.formData();
  const table = String(form.get("table") ?? "");
  const refused = (problem: string, status: number) => data({ report: null, problem }, { status });
  if (table.trim() === "") return refused("Choose a file, or paste its lines.", 400);
  if (table.length > MAX_CHARACTERS) return refused("That is more than a tray could have in categories.", 400);
  const tried = await tryCategoryTable(deps, grant, table);
  if (!tried.ok) return refused(tried.error, 400);
  if (form.get("do") !== "import") {
    return data({ report: { lines: tried.value.map(lineView), stepId: null, isDone: false }, problem: null });
  }
  const taken = await importCategories(deps, grant, table);
  if (!taken.ok) {
    const { error } = taken;
    const words = error.kind === "problems" || error.kind === "uses-changed" ? "" : refusalInWords(error);
    return refused(words, 409);
  }
  const { value, stepId } = taken.value;
  return data({ report: { lines: value.map(lineView), stepId, isDone: true }, problem: null });
}

function lineView(line: ReportedLine): Line {
  return { line: line.line, path: line.path, kind: line.kind, problem: line.kind === "problem" ? line.problem : null };
}

/** Takes categories in from a file: first what it would do, line by line, then the doing of it. */
export default function CategoriesImport() {
  const { tray, mayAddCategories } = useTray();
  const [table, setTable] = useState("");
  // What a page's own form was answered is forgotten with the next change that is heard of; a fetcher's is not.
  const { Form, data: answer, state } = useFetcher<typeof action>();
  const isBusy = state !== "idle";
  const report = answer?.report ?? null;
  const news = report?.lines.filter(({ kind }) => kind === "new" || kind === "changed").length ?? 0;
  return (
    <main
      aria-label="Import categories"
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="border-b border-rule px-4 py-2">
        <p className="text-sm text-soft">
          <Link to={`/${tray.slug}/categories`} className="hover:text-act hover:underline">
            Categories
          </Link>{" "}
          ›
        </p>
        <h1 className="font-serif text-xl">Import categories</h1>
      </div>
      {mayAddCategories ? (
        <div className="grid gap-x-8 gap-y-4 px-4 py-4 lg:grid-cols-2">
          <Form method="post" noValidate className="space-y-3">
            <p className="text-soft">
              A table in CSV whose first line names its columns: {CATEGORY_COLUMNS.join(", ")}. Only the path has to be
              there; “Invoices › Payment reminders” stands under Invoices.
            </p>
            <input
              type="file"
              accept=".csv,text/csv,text/plain"
              aria-label="File"
              onChange={(event) => void event.target.files?.[0]?.text().then(setTable)}
              className="w-full rounded-control border border-rule bg-paper text-sm file:mr-3 file:h-8 file:cursor-pointer file:border-0 file:border-r file:border-solid file:border-rule file:bg-ground file:px-3 file:font-semibold"
            />
            <div>
              <label htmlFor="table" className="mb-1 block text-sm font-semibold">
                Its lines
              </label>
              <textarea
                id="table"
                name="table"
                rows={12}
                value={table}
                onChange={(event) => setTable(event.target.value)}
                placeholder={"path,code,ink\nInvoices,IN,umber\nInvoices › Payment reminders,RM,sand"}
                aria-invalid={answer?.problem != null}
                aria-describedby="table-problem"
                className="w-full rounded-control border border-rule bg-paper px-2.5 py-1.5 font-mono text-sm aria-invalid:border-late"
              />
              <p id="table-problem" role="alert" className="text-sm text-late">
                {answer?.problem}
              </p>
            </div>
            <div className="flex gap-2">
              <Button type="submit" name="do" value="try" disabled={isBusy} look={news > 0 ? "outline" : "filled"}>
                See what it would do
              </Button>
              {report !== null && !report.isDone && news > 0 && (
                <Button type="submit" name="do" value="import" disabled={isBusy} look="filled">
                  {news === 1 ? "Take 1 category in" : `Take ${news} categories in`}
                </Button>
              )}
            </div>
          </Form>
          {report !== null && <ReportOf report={report} />}
        </div>
      ) : (
        <p className="px-4 py-5 text-soft">Those who may change the categories of this tray take them in.</p>
      )}
    </main>
  );
}

const KINDS: Readonly<Record<Line["kind"], readonly [will: string, did: string]>> = {
  new: ["will be created", "created"],
  changed: ["will be changed", "changed"],
  same: ["is there already", "was there already"],
  problem: ["", ""],
};

function ReportOf({ report: { lines, stepId, isDone } }: { report: Report }) {
  const { undoCategories } = useDecisions();
  return (
    <section aria-label="Line by line">
      <h2 className="flex items-baseline gap-3 border-b border-rule pb-1 text-sm font-semibold">
        {isDone ? "What it did" : "What it would do"}
        {stepId !== null && (
          <button type="button" onClick={() => undoCategories(stepId)} className="font-normal text-act hover:underline">
            undo all of it
          </button>
        )}
      </h2>
      <ul>
        {lines.map(({ line, path, kind, problem }) => (
          <li key={line} className="flex gap-3 border-b border-hair py-1 text-sm">
            <span className="w-8 shrink-0 text-right text-soft tabular-nums">{line}</span>
            <span className="min-w-0 flex-1 truncate">{path || "no path"}</span>
            <span className={`min-w-0 max-w-[60%] text-right ${problem === null ? "text-soft" : "text-late"}`}>
              {problem ?? KINDS[kind][isDone ? 1 : 0]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
