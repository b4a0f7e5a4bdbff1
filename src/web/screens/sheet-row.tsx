import { type MouseEvent, memo, type ReactNode, useRef } from "react";
import { Link } from "react-router";
import type { Column } from "../../core/lists/sheet-view";
import type { ListedRowView } from "../server/list-view.server";
import { useDragged } from "./dragging";
import { OwnerStamp } from "./owner-stamp";
import { cellOf } from "./sheet-columns";

type SheetRowProps = {
  readonly row: ListedRowView;
  /** Its place among the lines, by `placeOf`. */
  readonly spot: string;
  readonly columns: readonly Column[];
  readonly template: string;
  readonly roomy: boolean;
  readonly place: { readonly height: number; readonly transform: string };
  readonly now: number;
  readonly to: string;
  readonly isCursor: boolean;
  readonly isChosen: boolean;
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
  const { row, spot, columns, template, place, now, isCursor, isChosen, isChoosing, isGone } = props;
  const { onCursor, onToggle, onExtend } = props;
  const line = useRef<HTMLLIElement>(null);
  useDragged(line, row.id);
  const weight = row.unread ? "weight-unread" : "";
  // A click with a modifier chooses, as it does in every list.
  const click = (event: MouseEvent) => {
    if (event.shiftKey) onExtend(row);
    else if (event.ctrlKey || event.metaKey) onToggle(row);
    else return;
    event.preventDefault();
    onCursor(spot);
  };
  const ground = isChosen ? "bg-act-soft" : isCursor ? "bg-act-soft/70" : "hover:bg-ground/70";
  return (
    <li
      ref={line}
      onContextMenu={() => onCursor(spot)}
      className={`group absolute inset-x-0 border-b border-hair px-3 ${ground} ${isGone ? "opacity-50" : ""}`}
      style={place}
    >
      {isCursor && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-act" />}
      <div
        className="grid h-full grid-cols-[20px_minmax(0,1fr)_auto] items-center gap-x-2 md:grid-cols-[var(--sheet-columns)] md:gap-x-2.5"
        style={{ "--sheet-columns": template } as never}
      >
        <span className="relative z-10 row-span-2 grid h-full place-items-center md:row-span-1">
          <input
            type="checkbox"
            aria-label={`Choose ${row.subject || "no subject"}`}
            checked={isChosen}
            tabIndex={isCursor ? 0 : -1}
            onChange={() => onToggle(row)}
            onClick={(event) => event.shiftKey && onExtend(row)}
            className={`size-[14px] accent-act ${isChoosing || isChosen ? "" : "opacity-0 group-hover:opacity-100 focus-visible:opacity-100"}`}
          />
          {row.unread && !isChoosing && (
            <span
              role="img"
              aria-label="unread"
              className="pointer-events-none absolute block size-[7px] rounded-full bg-act group-hover:opacity-0"
            />
          )}
        </span>
        <span className={`min-w-0 truncate md:hidden ${weight}`}>{row.who}</span>
        <span className="text-right text-xs text-soft md:hidden">{row.when}</span>
        {columns.map(({ key }) =>
          key === "subject" ? (
            <SubjectCell key={key} {...props} weight={weight} onClick={click} />
          ) : (
            <span key={key} className="hidden min-w-0 md:block">
              {cellOf(key, row, now, weight)}
            </span>
          ),
        )}
        <span className="justify-self-end md:hidden">
          <OwnerStamp ownerId={row.ownerId} isCovered={row.isCovered} />
        </span>
      </div>
    </li>
  );
});

type SubjectCellProps = SheetRowProps & { readonly weight: string; readonly onClick: (event: MouseEvent) => void };

function SubjectCell(props: SubjectCellProps) {
  const { row, spot, to, roomy, isGone, isChoosing, onCursor, quick, weight, onClick } = props;
  return (
    <span className={`col-start-2 flex min-w-0 md:col-start-auto ${roomy ? "flex-col" : "items-baseline gap-2"}`}>
      <Link
        to={to}
        data-row={spot}
        draggable={false}
        onClick={onClick}
        onFocus={() => onCursor(spot)}
        className={`max-w-full truncate font-serif text-[14.5px] leading-[19px] outline-none after:absolute after:inset-0 focus-visible:after:outline-2 focus-visible:after:-outline-offset-2 focus-visible:after:outline-act ${roomy ? "" : "shrink-0"} ${weight}`}
      >
        {row.subject === "" ? "(no subject)" : row.subject}
      </Link>
      <span className={`hidden truncate text-sm text-soft md:inline ${roomy ? "leading-4" : ""}`}>
        {isGone ? "no longer here" : row.newestText}
      </span>
      {!isChoosing && !isGone && quick}
    </span>
  );
}
