import { useRef } from "react";
import { NavLink, useLocation } from "react-router";
import { AGE_BUCKET_NAMES } from "../../core/flow/age-buckets";
import type { SegmentView } from "../server/tray-view.server";
import { useDropTarget } from "./dragging";
import { LooseEndsSegment } from "./loose-ends-segment";

const BAR_HEIGHT = 20;

type FlowBarProps = {
  readonly slug: string;
  readonly segments: readonly SegmentView[];
  /** How many loose ends there are, where that is known without asking. */
  readonly looseEnds: number | null;
};

/** The five standings in the order of the flow: navigation and gauge in one. */
export function FlowBar({ slug, segments, looseEnds }: FlowBarProps) {
  return (
    <nav
      aria-label="Standings"
      className="mx-2 flex h-[64px] shrink-0 overflow-x-auto rounded-sheet border border-rule bg-paper sm:mx-4 sm:h-[56px]"
    >
      {segments.map((segment) => (
        <Segment key={segment.standing} slug={slug} segment={segment} />
      ))}
      <LooseEndsSegment
        slug={slug}
        gauge={segments.map(({ count, note }) => `${count} ${note}`).join()}
        given={looseEnds}
      />
    </nav>
  );
}

// To sort takes nothing: what is there has not been decided, and dropping is a decision.
const TAKES: ReadonlySet<string> = new Set(["our-move", "waiting", "resting", "settled"]);

function Segment({ slug, segment }: { slug: string; segment: SegmentView }) {
  const link = useRef<HTMLAnchorElement>(null);
  const { standing } = segment;
  const { pathname } = useLocation();
  // The horizon is the same standing, drawn otherwise.
  const isDrawn = standing === "waiting" && pathname.endsWith("/horizon");
  const isOver = useDropTarget(link, TAKES.has(standing) ? { kind: "standing", standing } : null);
  return (
    <NavLink
      ref={link}
      to={`/${slug}/${segment.standing}`}
      aria-label={`${segment.name}, ${segment.count}${segment.note === "" ? "" : `, ${segment.note}`}`}
      className={({ isActive }) =>
        `group relative min-w-[48px] flex-1 border-rule px-1.5 py-1 max-sm:flex max-sm:flex-col max-sm:justify-between not-first:border-l sm:px-3.5 ${isOver ? "bg-act-soft outline-2 -outline-offset-2 outline-act" : isActive || isDrawn ? "is-open bg-act text-on-act" : "hover:bg-act-soft"}`
      }
    >
      <span className="flex items-baseline justify-between gap-2">
        <span className="font-semibold max-sm:text-[11px] max-sm:leading-[13px] sm:truncate">{segment.name}</span>
        <span
          className={`hidden text-xs whitespace-nowrap lg:inline ${segment.late ? "font-semibold text-late" : "text-soft"} group-[.is-open]:text-on-act`}
        >
          {segment.note}
        </span>
      </span>
      <span className="flex items-end justify-between">
        <span className="font-serif text-[19px] leading-6 sm:text-[22px] sm:leading-7">{segment.count}</span>
        <Ages segment={segment} />
      </span>
    </NavLink>
  );
}

// Of settled ones the bars are days, not ages.
function Ages({ segment }: { segment: SegmentView }) {
  const most = Math.max(1, ...segment.ages);
  const bars = segment.standing === "settled" ? segment.ages.toReversed() : segment.ages;
  const told = segment.ages.map((count, at) => `${count} ${AGE_BUCKET_NAMES[at]}`).join(", ");
  return (
    <span
      aria-hidden
      title={segment.standing === "settled" ? "the last five days" : told}
      className="mb-1 hidden items-end gap-[3px] sm:flex"
    >
      {bars.map((count, at) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: the buckets are always the same five
          key={at}
          className={`w-2 group-[.is-open]:bg-on-act ${segment.late && at === 4 && count > 0 ? "bg-late" : "bg-faint/60"}`}
          style={{ height: count === 0 ? 1 : 3 + (count / most) * (BAR_HEIGHT - 3) }}
        />
      ))}
    </span>
  );
}
