import { useId, useState } from "react";
import { Button, KeyCap } from "../ui/button";
import { Dialog } from "../ui/dialog";
import type { PostedDecision } from "./decisions";

/** Writes a note that only colleagues see. */
export function NoteDialog({
  onDecide,
  onClose,
}: {
  onDecide: (decision: PostedDecision) => void;
  onClose: () => void;
}) {
  const id = useId();
  const [text, setText] = useState("");
  const [problem, setProblem] = useState<string>();
  const add = () => (text.trim() === "" ? setProblem("Write something first.") : onDecide({ kind: "note", text }));
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Note"
      description="For colleagues only; it is never sent."
      size="wide"
    >
      <form
        className="p-4"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <label htmlFor={id} className="sr-only">
          Note
        </label>
        <textarea
          id={id}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && (event.ctrlKey || event.metaKey) && add()}
          aria-invalid={problem !== undefined}
          aria-describedby={problem === undefined ? undefined : `${id}-problem`}
          rows={5}
          className="w-full rounded-control border border-dotted border-faint bg-ground p-2.5 italic"
        />
        {problem !== undefined && (
          <p id={`${id}-problem`} className="text-sm text-late">
            {problem}
          </p>
        )}
        <div className="mt-2 flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="filled" type="submit">
            Add note <KeyCap>Ctrl ⏎</KeyCap>
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
