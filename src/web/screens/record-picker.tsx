import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { loader as recordChoices } from "../routes/record-choices";
import { Picker } from "../ui/picker";
import type { DialogProps } from "./dialog-props";
import { notePick, recentFirst } from "./recent-picks";
import type { RecordsOutcome } from "./records-outcome";
import { useTray } from "./tray-data";
import { useStep } from "./use-step";

// What stands before the id of a type where a new record of it is picked.
const NEW = "new ";

/** Picks the record to file to, or opens one in place. */
export function RecordPicker({ target, onDecide, onClose }: DialogProps) {
  const { tray } = useTray();
  const { load, data: found, state } = useFetcher<typeof recordChoices>();
  const [text, setText] = useState("");
  const [settle, setSettle] = useState(true);
  const { post, refused } = useStep<RecordsOutcome>("records", ({ id, code }) => {
    notePick("record", id);
    onDecide({ kind: "file", record: id, code, settle });
  });
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  const records = found?.records ?? [];
  const ordered = text === "" ? recentFirst("record", records) : records;
  const title = text.trim();
  // Not before it is known that there is none of this name: whoever types fast means what is there.
  const inPlace = title !== "" && found?.text === title ? found.types : [];
  return (
    <Picker
      title="File to a record"
      prompt="Type a reference code or a title"
      empty={state === "idle" ? "No record has that code or title." : "Looking…"}
      onType={setText}
      choices={ordered.map(({ id, code, title, closed }) => ({
        id,
        words: code,
        on: target.rows.every(({ recordCodes }) => recordCodes.includes(code)),
        face: (
          <>
            <span className="inline-block w-[84px] text-sm text-soft">{code}</span>
            <span className="font-serif">{title}</span>
            {closed && <span className="pl-2 text-sm text-soft">closed</span>}
          </>
        ),
      }))}
      always={inPlace.map(({ id, name }) => ({
        id: `${NEW}${id}`,
        words: `${title} ${name}`,
        face: (
          <>
            <span className="inline-block w-[84px] text-sm text-act">New {name.toLowerCase()}</span>
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
        const code = records.find((record) => record.id === id)?.code ?? "";
        onDecide({ kind: "file", record: id, code, settle });
      }}
      onClose={onClose}
      footer={
        <>
          {refused !== null && (
            <p role="alert" className="pb-1.5 text-late">
              {refused.problem ?? Object.values(refused.problems).join(" ")}
            </p>
          )}
          <label className="flex cursor-pointer items-center gap-2.5">
            <input
              type="checkbox"
              checked={settle}
              onChange={(event) => setSettle(event.target.checked)}
              className="size-4 accent-act"
            />
            Settle it as well
          </label>
        </>
      }
    />
  );
}
