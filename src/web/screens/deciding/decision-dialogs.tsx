import { assertNever } from "../../../core/kernel/assert-never";
import { AssignPicker } from "./assign-picker";
import { CategoryHotkey } from "./category-hotkey";
import { CategoryPicker } from "./category-picker";
import { DateDialog } from "./date-dialog";
import type { DialogKind, DialogProps } from "./dialog-props";
import { JoinPicker } from "./join-picker";
import { NoteDialog } from "./note-dialog";
import { RecordPicker } from "./record-picker";

/** The dialog that a key or a button opened, about one conversation or several. */
export default function DecisionDialogs({ kind, ...props }: DialogProps & { kind: DialogKind }) {
  const [row] = props.target.rows;
  switch (kind) {
    case "assign":
      return <AssignPicker {...props} />;
    case "categories":
      return <CategoryPicker {...props} />;
    case "give-by-key":
      return <CategoryHotkey {...props} />;
    case "file":
      return <RecordPicker {...props} />;
    case "join":
      return row === undefined ? null : <JoinPicker row={row} {...props} />;
    case "note":
      return <NoteDialog {...props} />;
    case "expect":
    case "rest":
    case "expire":
    case "follow-up":
      return <DateDialog kind={kind} {...props} />;
    default:
      return assertNever(kind);
  }
}
