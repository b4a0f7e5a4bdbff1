import { type ReactNode, type PointerEvent as ReactPointerEvent, useState } from "react";
import type { Scope } from "../../../core/lists/scope";
import { type Column, type ColumnKey, MAX_WIDTH, MIN_WIDTH, USUAL_WIDTHS } from "../../../core/lists/sheet-view";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import type { PlainKey } from "../../../texts/say";
import type { ListedRowView } from "../../server/list/list-view.server";
import { useSay } from "../../ui/texts/use-say";
import { TurnLine } from "../../ui/turn-line";
import { UrgencyMarks } from "../../ui/urgency-marks";
import { RowTabs } from "../deciding/row-tabs";
import { OwnerBadge } from "../frame/owner-badge";

const TIME_HEADINGS: Readonly<Record<Scope, PlainKey<typeof listTexts>>> = {
  open: "list.dueOrSince",
  "to-sort": "list.unsortedFor",
  "our-move": "list.withUsFor",
  waiting: "list.expected",
  resting: "list.restsUntil",
  settled: "list.settled",
  held: "list.heldSince",
  bin: "list.inTheBinSince",
  junk: "list.junkSince",
};

export const COLUMN_NAMES: Readonly<Record<ColumnKey, PlainKey<typeof listTexts & typeof commonTexts>>> = {
  pace: "common.urgency",
  who: "list.who",
  subject: "list.subjectAndNewestWords",
  turns: "list.turnLine",
  time: "list.time",
  categories: "common.categories",
  record: "list.record",
  owner: "list.owner",
};

/** The columns as a grid template: the cell of the dot and the box first, then each as wide as chosen. */
export function gridOf(columns: readonly Column[]): string {
  return ["20px", ...columns.map(({ width }) => (width === null ? "minmax(0, 1fr)" : `${width}px`))].join(" ");
}

/** What a row says in a column, as a cell of its grid; the subject is drawn by the row itself, which it opens. */
export function cellOf(key: Exclude<ColumnKey, "subject">, row: ListedRowView, now: number): ReactNode {
  switch (key) {
    case "pace":
      return <UrgencyMarks urgency={row.urgency} />;
    case "who":
      return (
        <span className="who">
          {row.who}
          {row.messageCount > 1 && <small>{row.messageCount}</small>}
        </span>
      );
    case "turns":
      return (
        <TurnLine
          marks={row.marks}
          turn={row.turn}
          turnSince={row.turnSince}
          standing={row.standing}
          expectedAt={row.expectedAt}
          now={now}
        />
      );
    case "time":
      return <span className={row.due?.over === true ? "time is-late" : "time"}>{row.due?.words}</span>;
    case "categories":
      return (
        <span className="tabs">
          <RowTabs ids={row.categoryIds} />
        </span>
      );
    case "record":
      return <span className="code">{row.recordCodes.join(", ")}</span>;
    case "owner":
      return (
        <span className="is-owner">
          <OwnerBadge ownerId={row.ownerId} isCovered={row.isCovered} />
        </span>
      );
  }
}

type HeadingsProps = {
  readonly scope: Scope;
  readonly columns: readonly Column[];
  readonly onWidth: (key: ColumnKey, width: number) => void;
};

/** The headings of the columns, with handles that make them wider. */
export function ColumnHeadings({ scope, columns, onWidth }: HeadingsProps) {
  const say = useSay(listTexts, commonTexts);
  return (
    <div
      className="hidden h-[25px] shrink-0 items-center gap-x-2.5 overflow-hidden border-b border-rule px-3 text-xs text-soft [scrollbar-gutter:stable] [scrollbar-width:thin] md:grid"
      style={{ gridTemplateColumns: gridOf(columns) }}
    >
      <span />
      {columns.map((column) => (
        <span key={column.key} className={column.key === "time" ? "relative text-end" : "relative"}>
          {column.key === "turns" ? (
            <span className="flex justify-between pr-6">
              <span>{say("list.earlier")}</span>
              <span>{say("list.now")}</span>
            </span>
          ) : column.key === "time" ? (
            say(TIME_HEADINGS[scope])
          ) : (
            <span className="block truncate">{say(COLUMN_NAMES[column.key])}</span>
          )}
          {column.width !== null && <WidthHandle column={column} onWidth={onWidth} />}
        </span>
      ))}
    </div>
  );
}

const KEY_STEP = 10;

function WidthHandle({ column, onWidth }: { column: Column; onWidth: HeadingsProps["onWidth"] }) {
  const say = useSay(listTexts, commonTexts);
  const [pull, setPull] = useState<number | null>(null);
  const width = column.width ?? USUAL_WIDTHS[column.key] ?? MIN_WIDTH;
  const within = (wanted: number) => Math.round(Math.min(MAX_WIDTH, Math.max(MIN_WIDTH, wanted)));
  const start = (event: ReactPointerEvent<HTMLElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    setPull(event.clientX);
  };
  const end = (event: ReactPointerEvent<HTMLElement>) => {
    if (pull !== null && event.clientX !== pull) onWidth(column.key, within(width + event.clientX - pull));
    setPull(null);
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a separator that one moves is a control, which hr is not
    <span
      role="separator"
      aria-orientation="vertical"
      aria-label={say("list.widthOf", { name: say(COLUMN_NAMES[column.key]) })}
      aria-valuenow={width}
      aria-valuemin={MIN_WIDTH}
      aria-valuemax={MAX_WIDTH}
      tabIndex={0}
      onPointerDown={start}
      onPointerUp={end}
      onKeyDown={(event) => {
        const step = event.key === "ArrowRight" ? KEY_STEP : event.key === "ArrowLeft" ? -KEY_STEP : 0;
        if (step !== 0) onWidth(column.key, within(width + step));
      }}
      className={pull === null ? "width-handle" : "width-handle is-pulled"}
    />
  );
}
