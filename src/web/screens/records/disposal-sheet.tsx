import { useEffect, useRef, useState } from "react";
import type { PreviewView, RetainedLineView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { DayField } from "../frame/day-field";
import { useStep } from "../frame/use-step";
import type { RetentionOutcome } from "./retention-outcome";
import { TakeOut } from "./take-out";

type DisposalSheetProps = { readonly record: RetainedLineView; readonly onClose: () => void };

/** What would go with a record: looked at first, then taken out, kept for longer, or disposed of. */
export function DisposalSheet({ record, onClose }: DisposalSheetProps) {
  const [preview, setPreview] = useState<PreviewView | null>(null);
  const look = useStep<RetentionOutcome>("retention", (outcome) => setPreview(outcome.preview ?? null));
  const act = useStep<RetentionOutcome>("retention", onClose);
  const asked = useRef(false);
  const place = useRef<HTMLElement>(null);
  // What was refused before one looked again is over.
  const [past, setPast] = useState(act.refused);
  const show = () => {
    setPast(act.refused);
    look.post({ do: "preview", record: record.id });
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each record
  useEffect(() => {
    if (asked.current) return;
    asked.current = true;
    // Below everything else on a phone.
    place.current?.scrollIntoView({ block: "nearest" });
    show();
  }, []);
  const refused = act.refused === past ? look.refused : act.refused;
  const problem = refused?.problem;
  return (
    <section
      ref={place}
      aria-label={`Disposal of ${record.code}`}
      className="rounded-sheet border border-rule border-l-[3px] border-l-late p-3.5"
    >
      <h2 className="font-serif text-lg">
        {record.code} {record.title}
      </h2>
      {preview === null && look.refused === null && <p className="py-2 text-soft">Checking what is on it…</p>}
      {preview !== null && <Named preview={preview} />}
      {problem != null && (
        <div role="alert" className="mt-2 text-late">
          {problem}{" "}
          <button type="button" className="min-h-6 text-act hover:underline" onClick={show}>
            Check again
          </button>
        </div>
      )}
      {preview !== null && (
        <>
          <TakeOut code={record.code} text="" />
          <p className="pt-1 text-sm text-soft">
            Download the ZIP before it is disposed of: exports kept here go with it.
          </p>
          <div className="mt-3 flex flex-wrap items-center gap-2">
            <Dispose
              code={record.code}
              isBusy={act.isBusy || look.isBusy || preview.open > 0}
              onDispose={() => act.post({ do: "dispose", record: record.id, preview: preview.previewId })}
            />
          </div>
          <act.Form method="post" action={act.action} noValidate className="mt-3 flex items-end gap-2">
            <input type="hidden" name="do" value="keep" />
            <input type="hidden" name="record" value={record.id} />
            <DayField label="Or keep until" name="until" problem={refused?.problems.until} />
            <Button type="submit" className="mb-[22px] h-9" disabled={act.isBusy}>
              Keep
            </Button>
          </act.Form>
        </>
      )}
      <Button look="quiet" className="mt-2 -ml-3" onClick={onClose}>
        Not now
      </Button>
    </section>
  );
}

function Named({ preview }: { readonly preview: PreviewView }) {
  const { conversations, messages, documents, size, goes, stays, elsewhere, open, why } = preview;
  return (
    <>
      <p className="text-sm text-soft">
        Kept {why.until}, {why.why}.
      </p>
      <p className="mt-2">
        <b className="font-semibold">
          {counted(conversations, "conversation")} with {counted(messages, "message")} and{" "}
          {counted(documents, "document")}, {size},
        </b>{" "}
        would be deleted permanently, from lists, search and storage.
        {stays > 0 && ` ${stays} more are on other records as well and stay there.`}
      </p>
      {open > 0 && (
        <p className="mt-1 text-late">
          {open === 1 ? "One of them is still open: settle it" : `${open} of them are still open: settle them`} before
          anything goes.
        </p>
      )}
      <ul aria-label="To be disposed of" className="mt-2 max-h-56 overflow-y-auto border-y border-hair text-sm">
        {goes.map((one) => (
          <Line key={one.id} {...one} />
        ))}
        {goes.length < conversations && <li className="py-1 text-soft">and {conversations - goes.length} more</li>}
      </ul>
      {elsewhere.length > 0 && (
        <ul aria-label="What stays" className="mt-2 max-h-28 overflow-y-auto border-b border-hair text-sm">
          {elsewhere.map((one) => (
            <Line key={one.id} {...one} />
          ))}
        </ul>
      )}
    </>
  );
}

const counted = (count: number, one: string) =>
  count === 0 ? `no ${one}s` : count === 1 ? `1 ${one}` : `${count.toLocaleString("en")} ${one}s`;

function Line({ subject, who, when, count }: PreviewView["goes"][number]) {
  return (
    <li className="flex gap-3 border-b border-hair py-1 last:border-0">
      <span className="min-w-0 flex-1 truncate">
        <span className="font-serif">{subject || "(no subject)"}</span> <span className="text-soft">{who}</span>
      </span>
      <span className="shrink-0 text-soft">
        {counted(count, "message")}, {when}
      </span>
    </li>
  );
}

type DisposeProps = { readonly code: string; readonly isBusy: boolean; readonly onDispose: () => void };

// There is no Undo for this: it is asked for twice, in two places.
function Dispose({ code, isBusy, onDispose }: DisposeProps) {
  const [asks, setAsks] = useState(false);
  if (!asks) {
    return (
      <Button disabled={isBusy} onClick={() => setAsks(true)}>
        Dispose of it…
      </Button>
    );
  }
  return (
    <span className="flex flex-wrap items-center gap-2">
      <b className="font-semibold text-late">This cannot be undone.</b>
      <Button look="filled" disabled={isBusy} onClick={onDispose}>
        Dispose of {code} permanently
      </Button>
      <Button look="quiet" onClick={() => setAsks(false)}>
        No
      </Button>
    </span>
  );
}
