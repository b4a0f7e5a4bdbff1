import { ChevronDown, ChevronUp } from "lucide-react";
import { COLUMN_KEYS, type Column, type ColumnKey, type SheetView, USUAL_WIDTHS } from "../../../core/lists/sheet-view";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { COLUMN_NAMES } from "./sheet-columns";

type ViewProps = { readonly view: SheetView; readonly onView: (view: SheetView | null) => void };

/** The columns: a box for each, in the order in which they stand, each to be moved. */
export default function ColumnList({ view, onView }: ViewProps) {
  const say = useSay(listTexts, commonTexts);
  const hidden = COLUMN_KEYS.filter((key) => !view.columns.some((column) => column.key === key));
  const move = (key: ColumnKey, step: 1 | -1) => {
    const columns = [...view.columns];
    const from = columns.findIndex((column) => column.key === key);
    if (columns[from + step] === undefined) return;
    columns.splice(from + step, 0, ...columns.splice(from, 1));
    onView({ ...view, columns });
  };
  const toggle = (key: ColumnKey) => {
    const isShown = view.columns.some((column) => column.key === key);
    const columns: readonly Column[] = isShown
      ? view.columns.filter((column) => column.key !== key)
      : [...view.columns, { key, width: USUAL_WIDTHS[key] }];
    onView({ ...view, columns });
  };
  return (
    <div className="py-1.5">
      {view.columns.map(({ key }, at) => (
        <ColumnLine
          key={key}
          name={key}
          isFirst={at === 0}
          isLast={at === view.columns.length - 1}
          onToggle={toggle}
          onMove={move}
        />
      ))}
      {hidden.map((key) => (
        <Tick key={key} checked={false} onTick={() => toggle(key)} className="py-1 pr-3 pl-3 text-soft">
          {say(COLUMN_NAMES[key])}
        </Tick>
      ))}
      <p className="border-t border-hair px-3 pt-2 text-end">
        <Button
          className="h-7"
          onClick={() => onView({ ...view, columns: COLUMN_KEYS.map((key) => ({ key, width: USUAL_WIDTHS[key] })) })}
        >
          {say("list.usualColumns")}
        </Button>
      </p>
    </div>
  );
}

type ColumnLineProps = {
  readonly name: ColumnKey;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly onToggle: (key: ColumnKey) => void;
  readonly onMove: (key: ColumnKey, step: 1 | -1) => void;
};

const MOVE = "grid size-5 place-items-center rounded-control text-soft hover:text-act disabled:opacity-30";

function ColumnLine({ name, isFirst, isLast, onToggle, onMove }: ColumnLineProps) {
  const say = useSay(listTexts, commonTexts);
  return (
    <div className="flex items-center gap-2 py-1 pr-2 pl-3">
      <Tick checked disabled={name === "subject"} onTick={() => onToggle(name)} className="flex-1">
        {say(COLUMN_NAMES[name])}
      </Tick>
      <button
        type="button"
        aria-label={say("list.furtherToTheLeft", { name: say(COLUMN_NAMES[name]) })}
        disabled={isFirst}
        onClick={() => onMove(name, -1)}
        className={MOVE}
      >
        <ChevronUp size={15} aria-hidden />
      </button>
      <button
        type="button"
        aria-label={say("list.furtherToTheRight", { name: say(COLUMN_NAMES[name]) })}
        disabled={isLast}
        onClick={() => onMove(name, 1)}
        className={MOVE}
      >
        <ChevronDown size={15} aria-hidden />
      </button>
    </div>
  );
}
