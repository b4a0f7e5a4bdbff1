import { Paperclip, X } from "lucide-react";
import { type ClipboardEvent, type DragEvent, lazy, type ReactNode, useEffect, useState } from "react";
import { sizeInWords } from "../../../core/kernel/size-in-words";
import type { Draft } from "../../../core/writing/draft";
import type { DraftAttachment } from "../../../core/writing/draft-attachment";
import { shortened } from "../../../core/writing/sentences";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Opens } from "../../keys/key-desk";
import { useSay } from "../../ui/texts/use-say";
import { useAttaching } from "./use-attaching";

const DocumentPicker = lazy(() => import("./document-picker"));

type EnclosuresProps = {
  readonly enclosures: readonly DraftAttachment[];
  readonly change: (part: Partial<Draft>) => void;
  /** The codes of the records whose documents can go with it. */
  readonly records: readonly string[];
  readonly problem: string | undefined;
  /** The sentence of the text by which something goes along with it; null where none does. */
  readonly announced: string | null;
  /** Called with whether a file is on its way, without which the message would go. */
  readonly onAttaching: (isAttaching: boolean) => void;
  /** What files can be dropped on, or pasted into. */
  readonly children: ReactNode;
};

const LINK = "min-h-6 px-1 text-soft underline-offset-2 hover:text-act hover:underline";

/** The files that go with a message: from one's device, chosen, dropped or pasted, and from the records it is about. */
export function DraftAttachments(props: EnclosuresProps) {
  const say = useSay(writingTexts, commonTexts);
  const { enclosures, change, records, problem, announced, onAttaching, children } = props;
  const [picks, setPicks] = useState(false);
  const enclosing = useAttaching((enclosure) => change({ enclosures: [...enclosures, enclosure] }));
  const isAttaching = enclosing.names.length > 0;
  useEffect(() => onAttaching(isAttaching), [onAttaching, isAttaching]);
  const wrong = enclosing.problem ?? problem;
  const attach = (files: FileList) =>
    enclosing.bring(
      [...files].map((file) => {
        const form = new FormData();
        form.set("file", file);
        return { name: file.name, form };
      }),
    );
  // What is text goes to the editor as ever.
  const taken = (event: DragEvent | ClipboardEvent, { files }: DataTransfer) => {
    if (files.length === 0) return;
    event.preventDefault();
    event.stopPropagation();
    attach(files);
  };
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: a second way to what the link below does */}
      <div
        onDropCapture={(event) => taken(event, event.dataTransfer)}
        onPasteCapture={(event) => taken(event, event.clipboardData)}
        onDragOver={(event) => event.dataTransfer.types.includes("Files") && event.preventDefault()}
      >
        {children}
      </div>
      <div className="mt-1.5 flex flex-wrap items-center gap-1.5 text-sm">
        <Paperclip size={14} aria-hidden className="text-soft" />
        {enclosures.length > 0 && (
          <ul aria-label={say("writing.attached")} className="contents">
            {enclosures.map(({ id, name, size }) => (
              <li
                key={id}
                className="flex min-h-6 max-w-full items-center gap-1.5 rounded-control border border-rule pl-2"
              >
                <span className="max-w-[32ch] truncate">{name}</span>
                <span className="whitespace-nowrap text-soft">{say(sizeInWords(size))}</span>
                <button
                  type="button"
                  aria-label={say("common.removeOf", { name })}
                  onClick={() => change({ enclosures: enclosures.filter((one) => one.id !== id) })}
                  className="grid size-6 place-items-center text-soft hover:text-act"
                >
                  <X size={13} aria-hidden />
                </button>
              </li>
            ))}
          </ul>
        )}
        {isAttaching && (
          <span role="status" className="text-soft">
            {say("writing.attachingNames", { names: enclosing.names.join(", ") })}
          </span>
        )}
        <label className={`${LINK} flex cursor-pointer items-center focus-within:outline-2 focus-within:outline-act`}>
          {say("writing.attachFiles")}
          <input
            type="file"
            multiple
            className="sr-only"
            onChange={({ target }) => {
              if (target.files !== null) attach(target.files);
              // The same file again is a change, too.
              target.value = "";
            }}
          />
        </label>
        {records.length > 0 && (
          <button type="button" className={LINK} onClick={() => setPicks(true)}>
            {say("writing.attachFrom", { records: records.join(", ") })}
          </button>
        )}
        {announced !== null && enclosures.length === 0 && !isAttaching && (
          <span className="text-late">
            {say("writing.nothingIsAttachedAndIt", { announced: shortened(announced) })}
          </span>
        )}
      </div>
      {wrong !== undefined && (
        <p role="alert" className="text-sm text-late">
          {wrong}
        </p>
      )}
      {picks && (
        <Opens>
          <DocumentPicker
            records={records}
            onPick={({ code, name, sha256 }) => {
              const form = new FormData();
              for (const [field, value] of Object.entries({ code, name, sha256 })) form.set(field, value);
              enclosing.bring([{ name, form }]);
            }}
            onClose={() => setPicks(false)}
          />
        </Opens>
      )}
    </>
  );
}
