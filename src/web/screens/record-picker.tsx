import { useEffect, useState } from "react";
import { useFetcher } from "react-router";
import type { loader as recordChoices } from "../routes/record-choices";
import { Picker } from "../ui/picker";
import type { DialogProps } from "./dialog-props";
import { notePick, recentFirst } from "./recent-picks";
import { useTray } from "./tray-data";

/** Picks the record to file to. */
export function RecordPicker({ target, onDecide, onClose }: DialogProps) {
  const { tray } = useTray();
  const { load, data: records, state } = useFetcher<typeof recordChoices>();
  const [text, setText] = useState("");
  const [settle, setSettle] = useState(true);
  useEffect(() => {
    void load(`/${tray.slug}/record-choices?${new URLSearchParams({ text })}`);
  }, [load, tray.slug, text]);
  const ordered = text === "" ? recentFirst("record", records ?? []) : (records ?? []);
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
      onPick={(id) => {
        notePick("record", id);
        const code = records?.find((record) => record.id === id)?.code ?? "";
        onDecide({ kind: "file", record: id, code, settle });
      }}
      onClose={onClose}
      footer={
        <label className="flex cursor-pointer items-center gap-2.5">
          <input
            type="checkbox"
            checked={settle}
            onChange={(event) => setSettle(event.target.checked)}
            className="size-4 accent-act"
          />
          Settle it as well
        </label>
      }
    />
  );
}
