import { Fragment, type MouseEvent, memo, type ReactNode, useRef, useState } from "react";
import { Link } from "react-router";
import type { Column } from "../../../core/lists/sheet-view";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import type { ListedRowView } from "../../server/list/list-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useDragged } from "../frame/dragging";
import { OwnerBadge } from "../frame/owner-badge";
import { cellOf } from "./sheet-columns";

type SheetRowProps = {
  readonly row: ListedRowView;
  /** Its place among the lines, by `placeOf`. */
  readonly spot: string;
  readonly columns: readonly Column[];
  readonly roomy: boolean;
  /** How far down it stands, in pixels. */
  readonly start: number;
  readonly now: number;
  readonly to: string;
  readonly isCursor: boolean;
  readonly isSelected: boolean;
  readonly isChoosing: boolean;
  /** It has left the list and is shown until nobody looks. */
  readonly isGone: boolean;
  readonly onCursor: (place: string) => void;
  readonly onToggle: (row: ListedRowView) => void;
  readonly onExtend: (row: ListedRowView) => void;
  readonly quick: ReactNode;
};

/** One conversation as a line of the sheet; on a phone, as two. */
export const SheetRow = memo(function SheetRow(props: SheetRowProps) {
  const say = useSay(listTexts, commonTexts);
  const { row, spot, columns, start, now, isCursor, isSelected, isChoosing, isGone } = props;
  const { onCursor, onToggle, onExtend } = props;
  const line = useRef<HTMLLIElement>(null);
  useDragged(line, row.id);
  // A click with a modifier chooses, as it does in every list.
  const click = (event: MouseEvent) => {
    if (event.shiftKey) onExtend(row);
    else if (event.ctrlKey || event.metaKey) onToggle(row);
    else return;
    event.preventDefault();
    onCursor(spot);
  };
  const ground = isSelected ? "is-chosen" : isCursor ? "is-cursor" : "";
  // What it offers of itself is drawn once somebody points at it, or the cursor is here.
  const [isPointed, setPointed] = useState(false);
  return (
    <li
      ref={line}
      onContextMenu={() => onCursor(spot)}
      onPointerEnter={() => setPointed(true)}
      className={["row group", row.unread ? "is-unread" : "", ground, isGone ? "opacity-50" : ""]
        .filter(Boolean)
        .join(" ")}
      style={{ "--at": `${start}px` } as never}
    >
      {isCursor && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-act" />}
      <div>
        <span className="box">
          <input
            type="checkbox"
            aria-label={say("list.select", { subject: row.subject || say("common.noSubjectInside") })}
            checked={isSelected}
            tabIndex={isCursor ? 0 : -1}
            onChange={() => onToggle(row)}
            onClick={(event) => event.shiftKey && onExtend(row)}
            className={isChoosing || isSelected ? "is-shown" : undefined}
          />
          {row.unread && !isChoosing && <span role="img" aria-label={say("common.unread")} />}
        </span>
        <span dir="auto" className="of">
          {row.who}
        </span>
        <span className="when">{row.when}</span>
        {columns.map(({ key }) =>
          key === "subject" ? (
            <SubjectCell key={key} {...props} onClick={click} isPointed={isPointed || isCursor} />
          ) : (
            <Fragment key={key}>{cellOf(key, row, now)}</Fragment>
          ),
        )}
        {/* On a phone whose it is stands there whatever columns were chosen. */}
        {!columns.some(({ key }) => key === "owner") && (
          <span className="is-owner md:hidden">
            <OwnerBadge ownerId={row.ownerId} isCovered={row.isCovered} />
          </span>
        )}
      </div>
    </li>
  );
});

type SubjectCellProps = SheetRowProps & {
  readonly onClick: (event: MouseEvent) => void;
  readonly isPointed: boolean;
};

function SubjectCell(props: SubjectCellProps) {
  const say = useSay(listTexts, commonTexts);
  const { row, spot, to, roomy, isGone, isChoosing, onCursor, quick, onClick, isPointed } = props;
  return (
    <span dir="auto" className={roomy ? "subject is-roomy" : "subject"}>
      <Link to={to} data-row={spot} draggable={false} discover="none" onClick={onClick} onFocus={() => onCursor(spot)}>
        {row.subject === "" ? say("common.noSubject") : row.subject}
      </Link>
      <span>
        {row.hasDraft && <b className="font-semibold text-act">{say("list.draft")} </b>}
        {isGone ? say("list.noLongerHere") : row.newestText}
      </span>
      {isPointed && !isChoosing && !isGone && quick}
    </span>
  );
}
