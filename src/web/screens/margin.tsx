import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { RowView } from "../server/words.server";

/** The narrow list beside an open conversation; it keeps place and selection. */
export function Margin({ rows, openId, base }: { rows: readonly RowView[]; openId: string; base: string }) {
  const open = useRef<HTMLLIElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: scrolls whenever another row is open
  useEffect(() => {
    // Newer browsers give a promise back, which is no way to clean up.
    open.current?.scrollIntoView({ block: "nearest" });
  }, [openId]);
  return (
    <nav aria-label="Conversations" className="hidden min-h-0 overflow-y-auto border-r border-rule lg:block">
      <ul>
        {rows.map((row) => {
          const isOpen = row.id === openId;
          return (
            <li
              key={row.id}
              ref={isOpen ? open : null}
              className={`relative border-b border-rule px-3.5 py-1.5 ${isOpen ? "bg-paper" : "hover:bg-paper/60"}`}
            >
              {isOpen && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-act" />}
              <Link
                to={`${base}/${row.id}`}
                aria-current={isOpen ? "true" : undefined}
                className={`block truncate font-serif text-[14.5px] after:absolute after:inset-0 ${row.unread && !isOpen ? "weight-unread" : ""}`}
              >
                {row.subject === "" ? "(no subject)" : row.subject}
              </Link>
              <span className="flex justify-between gap-3 text-xs text-soft">
                <span className="truncate">{row.who}</span>
                <span className={`whitespace-nowrap ${row.due?.over === true ? "font-semibold text-late" : ""}`}>
                  {row.due?.words ?? row.when}
                </span>
              </span>
            </li>
          );
        })}
      </ul>
      {rows.length === 0 && <p className="px-3.5 py-3 text-sm text-soft">No other conversation stands here.</p>}
    </nav>
  );
}
