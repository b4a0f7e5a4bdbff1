import { type Ref, useEffect, useRef } from "react";
import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { listTexts } from "../../../texts/en/list";
import type { RowView } from "../../server/base/row-view.server";
import { useSay } from "../../ui/texts/use-say";
import { NewRows } from "./new-rows";

// What is further away is nearer in the list itself.
const NEAR = 100;
const MOST_LOOKED_THROUGH = 3_000;

type MarginProps = {
  readonly rows: readonly RowView[];
  readonly gone: ReadonlySet<string>;
  readonly arrived: number;
  readonly onShow: () => void;
  readonly openId: string;
  readonly base: string;
  readonly query: string;
  /** Has more of the list loaded; null where all of it is there. */
  readonly loadMore: (() => void) | null;
};

/** The narrow list beside an open conversation; it keeps place and selection. */
export function ListRail({ rows, gone, arrived, onShow, openId, base, query, loadMore }: MarginProps) {
  const say = useSay(listTexts);
  const open = useRef<HTMLLIElement>(null);
  const once = rows.filter((row, at) => rows.findIndex(({ id }) => id === row.id) === at);
  const place = once.findIndex(({ id }) => id === openId);
  const at = Math.max(0, place);
  // After a reload it may be further down than what the list begins with.
  const isFurther = place === -1 && rows.length < MOST_LOOKED_THROUGH;
  // biome-ignore lint/correctness/useExhaustiveDependencies: again after each part that did not have it
  useEffect(() => {
    if (isFurther) loadMore?.();
  }, [isFurther, rows.length]);
  const near = once.slice(Math.max(0, at - NEAR), at + NEAR);
  // biome-ignore lint/correctness/useExhaustiveDependencies: scrolls whenever another row is open
  useEffect(() => {
    // Newer browsers give a promise back, which is no way to clean up.
    open.current?.scrollIntoView({ block: "nearest" });
  }, [openId, place === -1]);
  return (
    <nav
      aria-label={say("list.conversations")}
      className="hidden min-h-0 overflow-y-auto border-r border-rule lg:block"
    >
      <NewRows count={arrived} onShow={onShow} isOver={false} />
      <ul>
        {near.map((row) => (
          <MarginRow
            key={row.id}
            row={row}
            ref={row.id === openId ? open : null}
            isOpen={row.id === openId}
            isGone={gone.has(row.id)}
            to={`${base}/${row.id}${query}`}
          />
        ))}
      </ul>
      {rows.length === 0 && (
        <p className="px-3.5 py-3 text-sm text-soft">{say("list.noOtherConversationStandsHere")}</p>
      )}
    </nav>
  );
}

type MarginRowProps = {
  readonly row: RowView;
  readonly ref: Ref<HTMLLIElement>;
  readonly isOpen: boolean;
  readonly isGone: boolean;
  readonly to: string;
};

function MarginRow({ row, ref, isOpen, isGone, to }: MarginRowProps) {
  const say = useSay(listTexts, commonTexts);
  const when = isGone ? say("list.noLongerHere") : (row.due?.words ?? row.when);
  const ground = isOpen ? "bg-paper" : "hover:bg-paper/60";
  return (
    <li ref={ref} className={`relative border-b border-rule px-3.5 py-1.5 ${ground} ${isGone ? "opacity-50" : ""}`}>
      {isOpen && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-act" />}
      <Link
        to={to}
        dir="auto"
        aria-current={isOpen ? "true" : undefined}
        className={`block truncate font-serif ltr:text-left rtl:text-right text-[14.5px] after:absolute after:inset-0 ${row.unread && !isOpen ? "weight-unread" : ""}`}
      >
        {row.subject === "" ? say("common.noSubject") : row.subject}
      </Link>
      <span className="flex justify-between gap-3 text-xs text-soft">
        <span className="truncate">
          {row.hasDraft && <b className="font-semibold text-act">{say("list.draft")} </b>}
          {row.who}
        </span>
        <span className={`whitespace-nowrap ${row.due?.over ? "font-semibold text-late" : ""}`}>{when}</span>
      </span>
    </li>
  );
}
