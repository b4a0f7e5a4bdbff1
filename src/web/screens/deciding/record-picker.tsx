import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import { type RecordId, trustedId } from "../../../core/kernel/ids";
import { commonTexts } from "../../../texts/en/common";
import { decidingTexts } from "../../../texts/en/deciding";
import type { loader as recordChoices } from "../../routes/records/record-choices";
import { Picker } from "../../ui/picker";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import type { RecordsOutcome } from "../forms/records-outcome";
import { useFormAction } from "../forms/use-form-action";
import { notePick, recentFirst } from "../frame/recent-picks";
import { useTray } from "../frame/tray-data";
import type { DialogProps } from "./dialog-props";

type RecordPickerProps = Pick<DialogProps, "onDecide" | "onClose"> & {
  readonly target: { readonly rows: readonly { readonly recordCodes: readonly string[] }[] };
  /** What is filed, where it is no conversation as it stands: then nothing is said of settling it. */
  readonly what?: string;
  /** What the picker is for, where nothing is filed with it. */
  readonly title?: string;
};

// What stands before the id of a type where a new record of it is picked.
const NEW = "new ";

/** Picks the record to file to, or opens one in place. */
export function RecordPicker({ target, what, title: purpose, onDecide, onClose }: RecordPickerProps) {
  const say = useSay(decidingTexts, commonTexts);
  const settles = what === undefined && purpose === undefined;
  const { tray } = useTray();
  const { load, data: found, state } = useFetcher<typeof recordChoices>();
  const [text, setText] = useState("");
  const [settle, setSettle] = useState(settles);
  const { post, refused } = useFormAction<RecordsOutcome>("records", ({ id, code }) => {
    notePick("record", id);
    onDecide({ kind: "file", recordId: trustedId<RecordId>(id), called: code, settle });
  });
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  const records = found?.records ?? [];
  const mine = found?.mine ?? [];
  const others = (text === "" ? recentFirst("record", records) : records).filter(
    ({ id }) => !mine.some((one) => one.id === id),
  );
  const ordered = [...mine, ...others.map((record) => ({ ...record, name: "" }))];
  const title = text.trim();
  // Not before it is known that there is none of this name, whoever types fast means what is there; nor for a code that is one.
  const isCode = ordered.some(({ code }) => code === title.toUpperCase());
  const inPlace = title !== "" && found?.text === title && !isCode ? found.types : [];
  return (
    <Picker
      title={
        purpose ?? (what === undefined ? say("deciding.fileToARecord") : say("deciding.fileWhatToARecord", { what }))
      }
      prompt={say("deciding.typeAReferenceCodeOr")}
      empty={state === "idle" ? say("deciding.noRecordHasThatCode") : say("common.searching")}
      onType={setText}
      choices={ordered.map(({ id, code, title, name, closed }) => ({
        id,
        words: code,
        on: target.rows.length > 0 && target.rows.every(({ recordCodes }) => recordCodes.includes(code)),
        face: (
          <>
            <span className="inline-block min-w-[100px] pr-3 text-sm text-soft">{code}</span>
            <span className="font-serif">{name || title}</span>
            {name !== "" && <span className="pl-2 text-sm text-soft">{title}</span>}
            {closed && <span className="pl-2 text-sm text-soft">{say("deciding.closed")}</span>}
          </>
        ),
      }))}
      always={inPlace.map(({ id, name }) => ({
        id: `${NEW}${id}`,
        words: `${title} ${name}`,
        face: (
          <>
            <span className="inline-block min-w-[100px] pr-3 text-sm text-act">
              {say("deciding.new", { name: name.toLowerCase() })}
            </span>
            <span className="font-serif">“{title}”</span>
          </>
        ),
      }))}
      onPick={(id) => {
        if (id.startsWith(NEW)) {
          post({ do: "keep", type: id.slice(NEW.length), title });
          return;
        }
        notePick("record", id);
        const code = ordered.find((record) => record.id === id)?.code ?? "";
        onDecide({ kind: "file", recordId: trustedId<RecordId>(id), called: code, settle });
      }}
      onClose={onClose}
      footer={
        !settles && refused === null ? undefined : (
          <>
            {refused !== null && (
              <p role="alert" className="pb-1.5 text-late">
                {refused.problem ?? Object.values(refused.problems).join(" ")}
              </p>
            )}
            {settles && (
              <Tick checked={settle} onTick={setSettle}>
                {say("deciding.settleItAsWell")}
              </Tick>
            )}
          </>
        )
      }
    />
  );
}
