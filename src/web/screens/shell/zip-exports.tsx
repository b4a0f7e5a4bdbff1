import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import type { PlainKey } from "../../../texts/say";
import type { loader as ownZipExports } from "../../routes/records/zip-exports";
import type { ZipExportView } from "../../server/records/zip-export-view.server";
import { Button } from "../../ui/button";
import { Progress } from "../../ui/progress";
import { useSay } from "../../ui/texts/use-say";

const STATES: Readonly<Record<ZipExportView["state"], PlainKey<typeof shellTexts>>> = {
  waiting: "shell.waitingToStart",
  running: "shell.inProgress",
  done: "shell.packed",
  cancelled: "shell.stopped",
  failed: "shell.failed",
};

const LOOK_EVERY_MS = 1_000;
const isOpen = ({ state }: ZipExportView) => state === "waiting" || state === "running";

/** What one takes out as zips: how far they are, to stop, to get and to put away. */
export function ZipExports({
  zipExports: known,
  slug,
}: {
  readonly zipExports: readonly ZipExportView[];
  readonly slug: string;
}) {
  const say = useSay(shellTexts);
  const { load, data } = useFetcher<typeof ownZipExports>();
  const [put, setPut] = useState<ReadonlySet<string>>(new Set());
  // What was asked for a moment ago is in neither of the two first.
  const newest = new Map([...known, ...(data?.zipExports ?? [])].map((zipExport) => [zipExport.id, zipExport]));
  const shown = [...newest.values()].filter(({ id }) => !put.has(id));
  const isAny = shown.some(isOpen);
  useEffect(() => {
    if (!isAny) return;
    const looking = setInterval(() => void load(`/${slug}/zip-exports`), LOOK_EVERY_MS);
    return () => clearInterval(looking);
  }, [isAny, load, slug]);
  if (shown.length === 0) return null;
  return (
    <section aria-label={say("shell.exports")} className="divide-y divide-hair">
      {shown.map((zipExport) => (
        <ZipExportItem
          key={zipExport.id}
          zipExport={zipExport}
          slug={slug}
          onPutAway={() => setPut((others) => new Set([...others, zipExport.id]))}
        />
      ))}
    </section>
  );
}

type ZipExportItemProps = { readonly zipExport: ZipExportView; readonly slug: string; readonly onPutAway: () => void };

function ZipExportItem({ zipExport, slug, onPutAway }: ZipExportItemProps) {
  const say = useSay(shellTexts, commonTexts);
  const { submit } = useFetcher();
  const { id, name, state, done, total, problem, size } = zipExport;
  const step = (what: string) =>
    void submit({ do: what, zipExport: id }, { method: "post", action: `/${slug}/zip-exports` });
  const count = (number: number) => say({ figure: number });
  return (
    <div className="space-y-1.5 px-3.5 py-2.5">
      <p className="flex items-baseline justify-between gap-3">
        <b className="min-w-0 truncate font-semibold">{name}</b>
        <span className="whitespace-nowrap text-soft">{say(STATES[state])}</span>
      </p>
      {isOpen(zipExport) && <Progress value={total === 0 ? 0 : done / total} label={name} isNamed={false} />}
      <p role="status" className="text-soft">
        {state === "done"
          ? say("shell.files", { count: count(total), size })
          : say("shell.ofFiles", { count: count(done), count2: count(total) })}
      </p>
      {problem !== null && <p className="text-late">{problem}</p>}
      <p className="flex items-center gap-2">
        {isOpen(zipExport) ? (
          <Button className="h-7" onClick={() => step("stop")}>
            {say("common.stop")}
          </Button>
        ) : (
          <>
            {state === "done" && (
              <a
                href={`/${slug}/zip-exports/${id}`}
                aria-label={say("shell.download", { name })}
                className="inline-flex h-7 items-center rounded-control bg-act px-2.5 font-semibold text-paper hover:bg-act/90"
              >
                {say("shell.downloadAlone")}
              </a>
            )}
            <Button
              look="quiet"
              className="h-7"
              onClick={() => {
                step("put-away");
                onPutAway();
              }}
            >
              {say("shell.dismiss")}
            </Button>
          </>
        )}
      </p>
    </div>
  );
}
