import { Link, useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { officeTexts } from "../../../texts/en/office";
import type { PlainKey } from "../../../texts/say";
import type { Route } from "../../routes/office/+types/import";
import { Button } from "../../ui/button";
import { Progress } from "../../ui/progress";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type Run = Route.ComponentProps["loaderData"]["runs"][number];

type RunKey = PlainKey<typeof officeTexts & typeof commonTexts>;

const STATES: Readonly<Record<Run["state"], RunKey>> = {
  receiving: "office.theFileIsOnIts",
  waiting: "office.waitingForItsTurn",
  running: "office.takingMessagesIn",
  done: "common.done",
  cancelled: "office.stopped",
  failed: "office.notReadToItsEnd",
};

const WAYS: Readonly<Record<Run["way"], RunKey>> = {
  history: "office.asHistoryInside",
  new: "office.asNewMailInside",
  record: "office.asARecordInside",
};

/** The imports of the tray, those under way with how far they are. */
export function ImportRuns({ runs }: { runs: readonly Run[] }) {
  const say = useSay(officeTexts);
  if (runs.length === 0) return <p className="px-5 py-8 text-soft">{say("office.nothingHasBeenImportedInto")}</p>;
  return (
    <ul aria-label={say("office.imports")}>
      {runs.map((run) => (
        <ImportItem key={run.id} run={run} />
      ))}
    </ul>
  );
}

function ImportItem({ run }: { run: Run }) {
  const say = useSay(officeTexts, commonTexts);
  const { tray, mayDecide } = useTray();
  const fetcher = useFetcher();
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 border-b border-hair px-5 py-2.5">
      <span className="min-w-0">
        <span className="flex items-baseline gap-3">
          <b className="truncate font-semibold">{run.fileName}</b>
          <span className="text-sm whitespace-nowrap text-soft">
            {say(WAYS[run.way])}, {run.when}
          </span>
        </span>
        {run.state === "running" ? (
          <Progress value={run.bytesRead / Math.max(1, run.bytes)} label={say(STATES.running)} />
        ) : (
          <span className={`text-sm ${run.state === "failed" ? "text-late" : "text-soft"}`}>
            {say(STATES[run.state])}
            {run.problem !== null && `: ${run.problem}`}
          </span>
        )}
        <span className="block text-sm text-soft">
          {say("office.readNewAlreadyHere", {
            messages: run.messages,
            added: run.added,
            knownAlready: run.knownAlready,
          })}
          {run.way !== "record" && say("office.flaggedAsOdd", { flagged: run.flagged })}
          {run.said !== null && `; ${run.said}`}
        </span>
        {run.record !== null && (
          <Link to={`/${tray.slug}/records/${run.record.code}`} className="text-sm text-act hover:underline">
            {run.record.code} {run.record.title}
          </Link>
        )}
      </span>
      {run.goesOn && mayDecide && (
        <fetcher.Form method="post">
          <input type="hidden" name="cancel" value={run.id} />
          <Button type="submit" disabled={fetcher.state !== "idle"}>
            {say("common.stop")}
          </Button>
        </fetcher.Form>
      )}
    </li>
  );
}
