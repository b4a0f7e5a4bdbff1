import { X } from "lucide-react";
import { useState } from "react";
import type { AskedFields } from "../../../core/records/filing-field";
import type { Draft } from "../../../core/writing/draft";
import { writingTexts } from "../../../texts/en/writing";
import { Opens } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { FilingSheet } from "../deciding/lazy-filing-sheet";
import { RecordPicker } from "../deciding/lazy-record-picker";

type SendAndFileProps = {
  readonly files: Draft["files"];
  /** What the record wants to know before an answer is sent; left out where nothing. */
  readonly asked: AskedFields | undefined;
  readonly onFile: (files: NonNullable<Draft["files"]> | null) => void;
  /** Sends it again with the particulars, as JSON. */
  readonly onFields: (fields: string) => void;
};

/** Has the conversation filed to a record when its answer is sent. */
export function SendAndFile({ files, asked, onFile, onFields }: SendAndFileProps) {
  const say = useSay(writingTexts);
  const [picks, setPicks] = useState(false);
  const [answered, setAnswered] = useState<AskedFields>();
  return (
    <>
      {files === undefined ? (
        <button
          type="button"
          onClick={() => setPicks(true)}
          className="min-h-6 px-1 text-sm text-soft underline-offset-2 hover:text-act hover:underline"
        >
          {say("writing.fileItAsWell")}
        </button>
      ) : (
        <span className="flex min-h-6 items-center gap-1 rounded-control border border-rule pl-2 text-sm">
          {say("writing.andFileItTo")} <b className="font-semibold">{files.code}</b>
          <button
            type="button"
            aria-label={say("writing.doNotFileItTo", { code: files.code })}
            onClick={() => onFile(null)}
            className="grid size-6 place-items-center text-soft hover:text-act"
          >
            <X size={13} aria-hidden />
          </button>
        </span>
      )}
      <Opens>
        {picks && (
          <RecordPicker
            target={{ rows: [] }}
            what={say("writing.whatYouWrite")}
            onDecide={(decision) => {
              if (decision.kind === "file") onFile({ id: decision.recordId, code: decision.called ?? "" });
              setPicks(false);
            }}
            onClose={() => setPicks(false)}
          />
        )}
        {asked !== undefined && asked !== answered && (
          <FilingSheet
            asked={asked}
            count={1}
            onFile={(given) => {
              setAnswered(asked);
              onFields(JSON.stringify(given));
            }}
            onClose={() => {
              setAnswered(asked);
              onFile(null);
            }}
          />
        )}
      </Opens>
    </>
  );
}
