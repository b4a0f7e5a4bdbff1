import { type ReactNode, useState } from "react";
import { Link, useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { frameTexts } from "../../../texts/en/frame";
import type { PlainKey } from "../../../texts/say";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

/** A line of a table, by its number in the file, and what it comes to. */
export type ImportedLine = {
  readonly line: number;
  readonly words: string;
  readonly kind: "new" | "changed" | "same" | "problem";
  readonly problem: string | null;
};

type TableReport = {
  readonly lines: readonly ImportedLine[];
  /** By what all of it is taken back; null where that is not offered. */
  readonly stepId: string | null;
  readonly isDone: boolean;
};

/** What the server said to a table: what it would do or did, or why it cannot be read. */
export type TableAnswer = { readonly report: TableReport | null; readonly problem: string | null };

type TableImportProps = {
  readonly title: string;
  /** The page that it belongs to, within the tray, and what that is called. */
  readonly back: readonly [page: string, name: string];
  readonly about: string;
  readonly example: string;
  readonly noun: readonly [one: string, many: string];
  /** Why she may not take anything in; null where she may. */
  readonly refusal: string | null;
  /** What its files are, by their endings and types. */
  readonly accept?: string;
  readonly onUndo?: (stepId: string) => void;
  readonly children?: ReactNode;
};

/** Takes a table in, which its page's action reads: first what it would do, line by line, then the doing of it. */
export function TableImport({
  title,
  back,
  about,
  example,
  noun,
  refusal,
  accept = ".csv,text/csv,text/plain",
  onUndo,
  children,
}: TableImportProps) {
  const say = useSay(frameTexts, commonTexts);
  const { tray } = useTray();
  const [table, setTable] = useState("");
  // What a page's own form was answered is forgotten with the next change that is heard of; a fetcher's is not.
  const { Form, data: answer, state } = useFetcher<TableAnswer>();
  const isBusy = state !== "idle";
  const report = answer?.report ?? null;
  const news = report?.lines.filter(({ kind }) => kind === "new" || kind === "changed").length ?? 0;
  return (
    <main
      aria-label={title}
      className="mx-2 mt-2.5 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4"
    >
      <div className="border-b border-rule px-4 py-2">
        <p className="text-sm text-soft">
          <Link to={`/${tray.slug}/${back[0]}`} className="hover:text-act hover:underline">
            {back[1]}
          </Link>{" "}
          ›
        </p>
        <h1 className="font-serif text-xl">{title}</h1>
      </div>
      {refusal === null ? (
        <div className="grid gap-x-8 gap-y-4 px-4 py-4 lg:grid-cols-2">
          <Form method="post" noValidate className="space-y-3">
            <p className="text-soft">{about}</p>
            {children}
            <input
              type="file"
              accept={accept}
              aria-label={say("common.file")}
              onChange={(event) => void event.target.files?.[0]?.text().then(setTable)}
              className="w-full rounded-control border border-rule bg-paper text-sm file:mr-3 file:h-8 file:cursor-pointer file:border-0 file:border-r file:border-solid file:border-rule file:bg-ground file:px-3 file:font-semibold"
            />
            <div>
              <label htmlFor="table" className="mb-1 block text-sm font-semibold">
                {say("frame.orItsLines")}
              </label>
              <textarea
                id="table"
                name="table"
                rows={12}
                value={table}
                onChange={(event) => setTable(event.target.value)}
                placeholder={example}
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
                {say("frame.preview")}
              </Button>
              {report !== null && !report.isDone && news > 0 && (
                <Button type="submit" name="do" value="import" disabled={isBusy} look="filled">
                  {say("frame.takeIn", { news, one: noun[0], many: noun[1] })}
                </Button>
              )}
            </div>
          </Form>
          {report !== null && <ReportOf report={report} onUndo={onUndo} />}
        </div>
      ) : (
        <p className="px-4 py-5 text-soft">{refusal}</p>
      )}
    </main>
  );
}

const KINDS: Readonly<
  Record<ImportedLine["kind"], readonly [will: PlainKey<typeof frameTexts>, did: PlainKey<typeof frameTexts>] | null>
> = {
  new: ["frame.willBeCreated", "frame.created"],
  changed: ["frame.willBeChanged", "frame.changed"],
  same: ["frame.isThereAlready", "frame.wasThereAlready"],
  problem: null,
};

type ReportOfProps = { readonly report: TableReport; readonly onUndo: ((stepId: string) => void) | undefined };

function ReportOf({ report: { lines, stepId, isDone }, onUndo }: ReportOfProps) {
  const say = useSay(frameTexts);
  return (
    <section aria-label={say("frame.lineByLine")}>
      <h2 className="flex items-baseline gap-3 border-b border-rule pb-1 text-sm font-semibold">
        {isDone ? say("frame.result") : say("frame.preview")}
        {stepId !== null && onUndo !== undefined && (
          <button type="button" onClick={() => onUndo(stepId)} className="font-normal text-act hover:underline">
            {say("frame.undoTheImport")}
          </button>
        )}
      </h2>
      <ul>
        {lines.map(({ line, words, kind, problem }, at) => {
          const kinds = KINDS[kind];
          const key = `${at} ${line}`;
          return (
            <li key={key} className="flex gap-3 border-b border-hair py-1 text-sm">
              <span className="w-8 shrink-0 text-end text-soft tabular-nums">{line}</span>
              <span className="min-w-0 flex-1 truncate">{words}</span>
              <span className={`min-w-0 max-w-[60%] text-end ${problem === null ? "text-soft" : "text-late"}`}>
                {problem ?? (kinds === null ? "" : say(kinds[isDone ? 1 : 0]))}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
