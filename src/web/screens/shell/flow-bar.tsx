import { useRef } from "react";
import { NavLink, useLocation } from "react-router";
import { AGE_BUCKET_NAMES } from "../../../core/flow/age-buckets";
import { shellTexts } from "../../../texts/en/shell";
import { standingTexts } from "../../../texts/en/standing";
import type { SegmentView } from "../../server/shell/tray-view.server";
import { useSay } from "../../ui/texts/use-say";
import { useDropTarget } from "../frame/dragging";
import { LooseEndsSegment } from "./loose-ends-segment";

const BAR_HEIGHT = 20;

type FlowBarProps = {
  readonly slug: string;
  readonly segments: readonly SegmentView[];
  /** How much rounds hold; null where it is nothing. */
  readonly held: number | null;
  /** How many loose ends there are, where that is known without asking. */
  readonly looseEnds: number | null;
};

/** The five standings in the order of the flow: navigation and gauge in one. */
export function FlowBar({ slug, segments, held, looseEnds }: FlowBarProps) {
  const say = useSay(shellTexts);
  return (
    <nav
      aria-label={say("shell.standings")}
      className="mx-2 flex shrink-0 overflow-x-auto max-sm:min-h-[64px] rounded-sheet border border-rule bg-paper sm:mx-4 sm:h-[56px]"
    >
      {segments.map((segment) => (
        <Segment key={segment.standing} slug={slug} segment={segment} />
      ))}
      {held !== null && <HeldSegment slug={slug} count={held} />}
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
        `segment flex-1 ${isOver ? "bg-act-soft outline-2 -outline-offset-2 outline-act" : isActive || isDrawn ? "is-open" : ""}`
      }
    >
      <span className="name-and-note">
        <b>{segment.name}</b>
        <span className={segment.late ? "note is-late" : "note"}>{segment.note}</span>
      </span>
      <span className="flex items-end justify-between">
        <span className="count">{segment.count}</span>
        <Ages segment={segment} />
      </span>
    </NavLink>
  );
}

// It calls for nothing: it is there while rounds hold something, and goes with it.
function HeldSegment({ slug, count }: { slug: string; count: number }) {
  const say = useSay(shellTexts, standingTexts);
  return (
    <NavLink
      to={`/${slug}/held`}
      aria-label={say("shell.heldByRounds", { count })}
      className={({ isActive }) => `segment sm:min-w-[84px] sm:shrink-0 ${isActive ? "is-open" : "text-soft"}`}
    >
      <span className="block max-sm:text-[11px] max-sm:leading-[13px]">{say("standing.held")}</span>
      <span className="count block">{count}</span>
    </NavLink>
  );
}

// Of settled ones the bars are days, not ages.
function Ages({ segment }: { segment: SegmentView }) {
  const say = useSay(shellTexts);
  const most = Math.max(1, ...segment.ages);
  const bars = segment.standing === "settled" ? segment.ages.toReversed() : segment.ages;
  const told = AGE_BUCKET_NAMES.map((name, at) => `${segment.ages[at] ?? 0} ${say(name)}`).join(", ");
  return (
    <span aria-hidden title={segment.standing === "settled" ? say("shell.theLastFiveDays") : told} className="ages">
      {bars.map((count, at) => (
        <i
          // biome-ignore lint/suspicious/noArrayIndexKey: the buckets are always the same five
          key={at}
          className={segment.late && at === 4 && count > 0 ? "is-late" : undefined}
          style={{ height: count === 0 ? 1 : Math.round(3 + (count / most) * (BAR_HEIGHT - 3)) }}
        />
      ))}
    </span>
  );
}
