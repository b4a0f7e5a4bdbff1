import { useId } from "react";
import { frameTexts } from "../../../texts/en/frame";
import { useSay } from "../../ui/texts/use-say";

type NoteFieldProps = { readonly note: string; readonly rows: number; readonly problem: string | undefined };

/** What is good to know of somebody or something, in a few lines. */
export function NoteField({ note, rows, problem }: NoteFieldProps) {
  const say = useSay(frameTexts);
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-sm font-semibold">
        {say("frame.goodToKnow")}
      </label>
      <textarea
        id={id}
        name="note"
        rows={rows}
        defaultValue={note}
        aria-invalid={problem !== undefined}
        aria-describedby={problem === undefined ? undefined : `${id}-problem`}
        className="w-full rounded-control border border-rule bg-paper px-2.5 py-1.5"
      />
      {problem !== undefined && (
        <p id={`${id}-problem`} className="text-sm text-late">
          {problem}
        </p>
      )}
    </div>
  );
}
