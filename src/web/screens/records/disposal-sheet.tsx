import { useEffect, useRef, useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { PreviewView, RetainedLineView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { DayField } from "../forms/day-field";
import { useFormAction } from "../forms/use-form-action";
import { ExportDialog } from "./export-dialog";
import type { RetentionOutcome } from "./retention-outcome";

type DisposalSheetProps = { readonly record: RetainedLineView; readonly onClose: () => void };

/** What would go with a record: looked at first, then taken out, kept for longer, or disposed of. */
export function DisposalSheet({ record, onClose }: DisposalSheetProps) {
  const say = useSay(recordsTexts);
  const [preview, setPreview] = useState<PreviewView | null>(null);
  const look = useFormAction<RetentionOutcome>("retention", (outcome) => setPreview(outcome.preview ?? null));
  const act = useFormAction<RetentionOutcome>("retention", onClose);
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
      aria-label={say("records.disposalOf", { code: record.code })}
      className="rounded-sheet border border-rule border-l-[3px] border-l-late p-3.5"
    >
      <h2 className="font-serif text-lg">
        {record.code} {record.title}
      </h2>
      {preview === null && look.refused === null && (
        <p className="py-2 text-soft">{say("records.checkingWhatIsOnIt")}</p>
      )}
      {preview !== null && <Named preview={preview} />}
      {problem != null && (
        <div role="alert" className="mt-2 text-late">
          {problem}{" "}
          <button type="button" className="min-h-6 text-act hover:underline" onClick={show}>
            {say("records.checkAgain")}
          </button>
        </div>
      )}
      {preview !== null && (
        <>
          <ExportDialog code={record.code} text="" />
          <p className="pt-1 text-sm text-soft">{say("records.downloadTheZipBeforeIt")}</p>
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
            <DayField label={say("records.orKeepUntil")} name="until" problem={refused?.problems.until} />
            <Button type="submit" className="mb-[22px] h-9" disabled={act.isBusy}>
              {say("records.keep")}
            </Button>
          </act.Form>
        </>
      )}
      <Button look="quiet" className="mt-2 -ml-3" onClick={onClose}>
        {say("records.notNow")}
      </Button>
    </section>
  );
}

function Named({ preview }: { readonly preview: PreviewView }) {
  const say = useSay(recordsTexts);
  const { conversations, messages, documents, size, goes, stays, elsewhere, open, why } = preview;
  return (
    <>
      <p className="text-sm text-soft">{say("records.kept", { until: why.until, why: why.why })}</p>
      <p className="mt-2">
        <b className="font-semibold">
          {say("records.withAnd", {
            conversations,
            messages,
            documents,
            size,
          })}
        </b>{" "}
        {say("records.wouldBeDeletedPermanentlyFrom")}
        {stays > 0 && say("records.moreAreOnOtherRecords", { stays })}
      </p>
      {open > 0 && <p className="mt-1 text-late">{say("records.ofThemAreStillOpen", { open })}</p>}
      <ul
        aria-label={say("records.toBeDisposedOf")}
        className="mt-2 max-h-56 overflow-y-auto border-y border-hair text-sm"
      >
        {goes.map((one) => (
          <Line key={one.id} {...one} />
        ))}
        {goes.length < conversations && (
          <li className="py-1 text-soft">{say("records.andSoManyMore", { count: conversations - goes.length })}</li>
        )}
      </ul>
      {elsewhere.length > 0 && (
        <ul
          aria-label={say("records.whatStays")}
          className="mt-2 max-h-28 overflow-y-auto border-b border-hair text-sm"
        >
          {elsewhere.map((one) => (
            <Line key={one.id} {...one} />
          ))}
        </ul>
      )}
    </>
  );
}

function Line({ subject, who, when, count }: PreviewView["goes"][number]) {
  const say = useSay(commonTexts, recordsTexts);
  return (
    <li className="flex gap-3 border-b border-hair py-1 last:border-0">
      <span className="min-w-0 flex-1 truncate">
        <span className="font-serif">{subject || say("common.noSubject")}</span>{" "}
        <span className="text-soft">{who}</span>
      </span>
      <span className="shrink-0 text-soft">
        {say("records.messagesOf", { count })}, {when}
      </span>
    </li>
  );
}

type DisposeProps = { readonly code: string; readonly isBusy: boolean; readonly onDispose: () => void };

// There is no Undo for this: it is asked for twice, in two places.
function Dispose({ code, isBusy, onDispose }: DisposeProps) {
  const say = useSay(recordsTexts);
  const [asks, setAsks] = useState(false);
  if (!asks) {
    return (
      <Button disabled={isBusy} onClick={() => setAsks(true)}>
        {say("records.disposeOfIt")}
      </Button>
    );
  }
  return (
    <span className="flex flex-wrap items-center gap-2">
      <b className="font-semibold text-late">{say("records.thisCannotBeUndone")}</b>
      <Button look="filled" disabled={isBusy} onClick={onDispose}>
        {say("records.disposeOfPermanently", { code })}
      </Button>
      <Button look="quiet" onClick={() => setAsks(false)}>
        {say("records.no")}
      </Button>
    </span>
  );
}
