import type { ComponentProps, ReactNode } from "react";

type Side = "left" | "center" | "right";

const SIDES: Readonly<Record<Side, string>> = {
  left: "text-start",
  center: "text-center",
  right: "text-end tabular-nums",
};

type DataTableProps = {
  /** What it is a table of, where no heading says so. */
  readonly caption?: string;
  /** The cells of its first line, which stays in sight. */
  readonly head: ReactNode;
  readonly children: ReactNode;
};

/** A table of what is counted, or compared, line by line. */
export function DataTable({ caption, head, children }: DataTableProps) {
  return (
    <table className="w-full border-separate border-spacing-0">
      {caption !== undefined && <caption className="pb-1 text-start font-semibold">{caption}</caption>}
      <thead className="sticky top-0 z-10 bg-paper text-sm text-soft">
        <tr>{head}</tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

type ColumnHeadProps = {
  readonly side?: Side;
  /** Which way the table is sorted by it; null where it is not, left out where it cannot be. */
  readonly sorted?: "up" | "down" | null;
  readonly onSort?: () => void;
  readonly className?: string;
  readonly children: ReactNode;
};

const ORDERS = { up: "ascending", down: "descending" } as const;

/** The name of a column; pressed, the table is sorted by it. */
export function ColumnHead({ side = "left", sorted, onSort, className = "", children }: ColumnHeadProps) {
  return (
    <th
      scope="col"
      aria-sort={sorted == null ? undefined : ORDERS[sorted]}
      className={`border-b border-rule px-3 py-1.5 font-normal ${SIDES[side]} ${className}`}
    >
      {onSort === undefined ? (
        children
      ) : (
        <button type="button" className="min-h-6 hover:text-act" onClick={onSort}>
          {children} {sorted == null ? "" : sorted === "down" ? "↓" : "↑"}
        </button>
      )}
    </th>
  );
}

/** `isTight` for lines of which many are looked at as one. */
type CellProps<Tag extends "td" | "th"> = ComponentProps<Tag> & { readonly side?: Side; readonly isTight?: boolean };

const cellLook = (side: Side, isTight: boolean, className: string) =>
  `border-b border-hair px-3 font-normal ${isTight ? "py-1" : "py-2"} ${SIDES[side]} ${className}`;

/** What a line has in a column. */
export function Cell({ side = "left", isTight = false, className = "", ...cell }: CellProps<"td">) {
  return <td className={cellLook(side, isTight, className)} {...cell} />;
}

/** What a line is about. */
export function RowHead({ side = "left", isTight = false, className = "", ...cell }: CellProps<"th">) {
  return <th scope="row" className={cellLook(side, isTight, className)} {...cell} />;
}
