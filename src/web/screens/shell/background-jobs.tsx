import { useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import type { PlainKey } from "../../../texts/say";
import type { ZipExportView } from "../../server/records/zip-export-view.server";
import type { RunView } from "../../server/shell/tray-view.server";
import { Button } from "../../ui/button";
import { Progress } from "../../ui/progress";
import { useSay } from "../../ui/texts/use-say";
import { useDecisions } from "../deciding/decisions";
import { ZipExports } from "./zip-exports";

const STATES: Readonly<Record<RunView["state"], PlainKey<typeof shellTexts>>> = {
  waiting: "shell.waitingToStart",
  running: "shell.inProgress",
  done: "shell.done",
  cancelled: "shell.stopped",
  failed: "shell.failed",
};

type BackgroundJobsProps = {
  readonly runs: readonly RunView[];
  readonly zipExports: readonly ZipExportView[];
  readonly slug: string;
};

/** What is done in the background, in a corner of the screen. */
export default function BackgroundJobs({ runs, zipExports, slug }: BackgroundJobsProps) {
  return (
    <div className="fixed bottom-[68px] left-5 z-30 w-[240px] divide-y divide-hair rounded-sheet border border-rule border-l-[3px] border-l-act bg-paper text-sm shadow-raised empty:hidden max-sm:right-2 max-sm:bottom-16 max-sm:left-2 max-sm:w-auto">
      <Runs runs={runs} slug={slug} />
      <ZipExports zipExports={zipExports} slug={slug} />
    </div>
  );
}

/** Decisions about many conversations: how far they have come, with the means to stop and to undo them. */
function Runs({ runs, slug }: { runs: readonly RunView[]; slug: string }) {
  const say = useSay(shellTexts);
  const [put, setPut] = useState<ReadonlySet<string>>(new Set());
  const shown = runs.filter(({ id }) => !put.has(id));
  if (shown.length === 0) return null;
  return (
    <section aria-label={say("shell.decisionsUnderWay")} className="divide-y divide-hair">
      {shown.map((run) => (
        <Run key={run.id} run={run} slug={slug} onPutAway={() => setPut((others) => new Set([...others, run.id]))} />
      ))}
    </section>
  );
}

function Run({ run, slug, onPutAway }: { run: RunView; slug: string; onPutAway: () => void }) {
  const say = useSay(shellTexts, commonTexts);
  const stop = useFetcher();
  const { undo } = useDecisions();
  const isOpen = run.state === "waiting" || run.state === "running";
  const count = (number: number) => say({ figure: number });
  return (
    <div className="space-y-1.5 px-3.5 py-2.5">
      <p className="flex items-baseline justify-between gap-3">
        <b className="min-w-0 truncate font-semibold">{run.words}</b>
        <span className="whitespace-nowrap text-soft">{say(STATES[run.state])}</span>
      </p>
      <Progress value={run.total === 0 ? 1 : run.position / run.total} label={run.words} isNamed={false} />
      <p role="status" className="text-soft">
        {isOpen || run.state === "done"
          ? say("shell.of", { count: count(run.position), count2: count(run.total) })
          : say("shell.doneNotDone", { count: count(run.position), count2: count(run.total - run.position) })}
        {run.position > run.changed && say("shell.wereSoAlready", { count: count(run.position - run.changed) })}
      </p>
      {run.problem !== null && <p className="text-late">{run.problem}</p>}
      <p className="flex gap-2">
        {isOpen ? (
          <Button
            className="h-7"
            onClick={() => void stop.submit({ run: run.id }, { method: "post", action: `/${slug}/stop-run` })}
          >
            {say("common.stop")}
          </Button>
        ) : (
          <>
            {run.canUndo && run.changed > 0 && (
              <Button
                className="h-7"
                onClick={() => {
                  undo(run.batchId);
                  onPutAway();
                }}
              >
                {say("shell.undo", { count: count(run.changed) })}
              </Button>
            )}
            <Button look="quiet" className="h-7" onClick={onPutAway}>
              {say("shell.dismiss")}
            </Button>
          </>
        )}
      </p>
    </div>
  );
}
