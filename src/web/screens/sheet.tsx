import { Fragment, useEffect, useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { STANDING_NAMES, type StandingKind } from "../../core/standing/standing";
import type { RowView } from "../server/words.server";
import { CategoryTab } from "../ui/category-tab";
import { Stamp } from "../ui/stamp";
import { TurnLine } from "../ui/turn-line";
import { EmptyStanding } from "./empty-standing";
import { useTray } from "./tray-data";

const COLUMNS =
  "md:grid-cols-[14px_150px_minmax(0,1fr)_148px_104px_minmax(0,190px)_84px_34px] grid-cols-[14px_minmax(0,1fr)_auto] md:gap-x-2.5 gap-x-2";

const TIME_HEADINGS: Readonly<Record<StandingKind, string>> = {
  "to-sort": "Unsorted for",
  "our-move": "With us for",
  waiting: "Expected",
  resting: "Rests until",
  settled: "Settled",
  bin: "In the bin since",
  junk: "Junk since",
};

// Two or more with their names would run out of their column.
const MAX_NAMED_CHARACTERS = 18;

type SheetProps = {
  readonly standing: StandingKind;
  readonly rows: readonly RowView[];
  readonly hasMore: boolean;
  readonly now: number;
  readonly cursorId: string | null;
  readonly onCursor: (id: string) => void;
  readonly base: string;
};

/** The ruled list of a standing, grouped by the day of the newest message. */
export function Sheet({ standing, rows, hasMore, now, cursorId, onCursor, base }: SheetProps) {
  const list = useRef<HTMLDivElement>(null);
  const [params] = useSearchParams();
  // The row under the cursor has the focus, so that Enter and screen readers mean the same one.
  useEffect(() => {
    const row = cursorId === null ? null : list.current?.querySelector<HTMLElement>(`[data-row="${cursorId}"]`);
    if (row !== document.activeElement) row?.focus();
  }, [cursorId]);
  if (rows.length === 0) return <EmptyStanding standing={standing} />;
  const pages = Number(params.get("pages") ?? "1");
  return (
    <main
      ref={list}
      aria-label={STANDING_NAMES[standing]}
      className="mx-2 mt-2 min-h-0 flex-1 overflow-y-auto rounded-t-sheet border border-b-0 border-rule bg-paper sm:mx-4 sm:mt-2.5"
    >
      <div
        aria-hidden
        className={`sticky top-0 z-10 hidden h-[27px] items-center border-b border-rule bg-paper px-3 text-xs text-soft md:grid ${COLUMNS}`}
      >
        <span />
        <span>Who</span>
        <span>Subject and newest words</span>
        <span className="flex justify-between pr-6">
          <span>earlier</span>
          <span>now</span>
        </span>
        <span className="text-right">{TIME_HEADINGS[standing]}</span>
        <span>Categories</span>
        <span>Record</span>
        <span>Owner</span>
      </div>
      <ul>
        {rows.map((row, at) => (
          <Fragment key={row.id}>
            {row.day !== rows[at - 1]?.day && (
              <DayHeading day={row.day} count={rows.filter(({ day }) => day === row.day).length} />
            )}
            <SheetLine
              row={row}
              now={now}
              isCursor={row.id === cursorId}
              onCursor={onCursor}
              to={`${base}/${row.id}`}
            />
          </Fragment>
        ))}
      </ul>
      {hasMore && (
        <p className="px-4 py-3">
          <Link
            to={`${base}?pages=${pages + 1}`}
            preventScrollReset
            className="font-semibold text-act underline-offset-2 hover:underline"
          >
            Show older conversations
          </Link>
        </p>
      )}
    </main>
  );
}

function DayHeading({ day, count }: { day: string; count: number }) {
  return (
    <li className="flex h-[27px] items-center gap-2.5 border-b border-rule bg-ground px-3.5 text-sm">
      <h2 className="font-semibold">{day}</h2>
      <span className="text-soft">{count}</span>
    </li>
  );
}

type LineProps = { row: RowView; now: number; isCursor: boolean; onCursor: (id: string) => void; to: string };

function SheetLine({ row, now, isCursor, onCursor, to }: LineProps) {
  const weight = row.unread ? "weight-unread" : "";
  return (
    <li
      className={`relative grid min-h-[48px] items-center border-b border-hair px-3 md:h-[31px] md:min-h-0 ${COLUMNS} ${isCursor ? "bg-act-soft" : "hover:bg-ground/70"}`}
    >
      {isCursor && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-act" />}
      <span className="row-span-2 md:row-span-1">
        {row.unread && <span role="img" aria-label="unread" className="block size-[7px] rounded-full bg-act" />}
      </span>
      <span className={`min-w-0 truncate ${weight}`}>
        {row.who}
        {row.messageCount > 1 && <span className="pl-1.5 text-xs font-normal text-soft">{row.messageCount}</span>}
      </span>
      <span className="text-right text-xs text-soft md:hidden">{row.when}</span>
      <span className="col-start-2 flex min-w-0 items-baseline gap-2 md:col-start-auto">
        <Link
          to={to}
          data-row={row.id}
          onFocus={() => onCursor(row.id)}
          className={`max-w-full shrink-0 truncate font-serif text-[14.5px] outline-none after:absolute after:inset-0 focus-visible:after:outline-2 focus-visible:after:-outline-offset-2 focus-visible:after:outline-act ${weight}`}
        >
          {row.subject === "" ? "(no subject)" : row.subject}
        </Link>
        <span className="hidden truncate text-sm text-soft md:inline">{row.newestText}</span>
      </span>
      <span className="hidden md:block">
        <TurnLine
          marks={row.marks}
          turn={row.turn}
          turnSince={row.turnSince}
          standing={row.standing}
          expectedAt={row.expectedAt}
          now={now}
        />
      </span>
      <span
        className={`hidden truncate text-right text-sm md:block ${row.due?.over === true ? "font-semibold text-late" : "text-soft"}`}
      >
        {row.due?.words}
      </span>
      <Tabs ids={row.categoryIds} />
      <span className="hidden truncate text-sm text-soft md:block">{row.recordCodes.join(", ")}</span>
      <span className="justify-self-end md:justify-self-start">
        <OwnerStamp ownerId={row.ownerId} />
      </span>
    </li>
  );
}

function Tabs({ ids }: { ids: readonly string[] }) {
  const { categories } = useTray();
  const given = ids.flatMap((id) => categories.find((category) => category.id === id) ?? []);
  const named = given.length === 1 || given.reduce((sum, { name }) => sum + name.length, 0) <= MAX_NAMED_CHARACTERS;
  return (
    <span className="hidden min-w-0 gap-1 overflow-hidden md:flex">
      {given.map(({ id, code, name, ink }) => (
        <CategoryTab key={id} code={code} name={name} ink={ink} short={!named} />
      ))}
    </span>
  );
}

/** The stamp of whoever owns a conversation, as seen by the member who is signed in. */
export function OwnerStamp({ ownerId }: { ownerId: string | null }) {
  const { members, member } = useTray();
  const owner = members.find(({ id }) => id === ownerId) ?? null;
  return <Stamp initials={owner?.initials ?? null} name={owner?.name ?? "no owner"} own={owner?.id === member.id} />;
}
