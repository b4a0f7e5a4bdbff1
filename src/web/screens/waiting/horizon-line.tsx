import { DAY } from "../../../core/kernel/instant";
import { waitingTexts } from "../../../texts/en/waiting";
import type { WaitingView } from "../../server/waiting/waiting-view.server";
import { useSay } from "../../ui/texts/use-say";

// What is shown to both sides of now; further away stands at the edge.
const BACK_MS = 14 * DAY;
const AHEAD_MS = 14 * DAY;

/** Where a moment stands on the axis that all rows share, in percent of its width. */
export function horizonX(at: number, now: number): number {
  const share = (at - (now - BACK_MS)) / (BACK_MS + AHEAD_MS);
  return Math.round(Math.min(1, Math.max(0, share)) * 10_000) / 100;
}

export const HORIZON_TICKS = [
  [-10, "waiting.10DaysAgo"],
  [-5, "waiting.5DaysAgo"],
  [0, "waiting.todayAlone"],
  [5, "waiting.in5"],
  [10, "waiting.in10"],
] as const;

type HorizonLineProps = { readonly view: WaitingView; readonly now: number };

/** From our message to now, hatched; thick beyond the expected day; the caret where it is expected; the band of usual answers. */
export function HorizonLine({
  view: { row, askedAt, span, asked, expected, overWords, usual },
  now,
}: HorizonLineProps) {
  const say = useSay(waitingTexts);
  const x = (at: number) => horizonX(at, now);
  const from = x(askedAt);
  const due = row.expectedAt === null ? null : x(row.expectedAt);
  const isOver = row.expectedAt !== null && row.expectedAt < now;
  const thin = isOver && due !== null ? Math.max(from, due) : x(now);
  const sentence = say("waiting.askedExpected", {
    asked,
    expected,
    over: overWords === null ? "" : `, ${overWords}`,
    usual: usual === null ? "" : `; ${usual}`,
  });
  return (
    <div role="img" aria-label={sentence} title={sentence} className="relative h-full">
      {HORIZON_TICKS.map(([days]) => (
        <span
          key={days}
          className={`absolute inset-y-0 w-px ${days === 0 ? "bg-act" : "bg-hair"}`}
          style={{ insetInlineStart: `${x(now + days * DAY)}%` }}
        />
      ))}
      {span !== null && (
        <span
          className="absolute inset-y-[8px] border-s border-[#a98a4e] bg-[#a98a4e]/25"
          style={{ insetInlineStart: `${x(span.from)}%`, width: `${Math.max(0.6, x(span.to) - x(span.from))}%` }}
        />
      )}
      <span
        className="absolute top-1/2 h-1 -translate-y-1/2 bg-[repeating-linear-gradient(115deg,var(--ink)_0_1.5px,transparent_1.5px_4px)] opacity-60"
        style={{ insetInlineStart: `${from}%`, width: `${Math.max(0, thin - from)}%` }}
      />
      {isOver && (
        <span
          className="absolute top-1/2 h-2 -translate-y-1/2 bg-[repeating-linear-gradient(115deg,var(--late)_0_2.5px,transparent_2.5px_4.5px)]"
          style={{ insetInlineStart: `${thin}%`, width: `${Math.max(0, x(now) - thin)}%` }}
        />
      )}
      <span
        className="absolute top-1/2 size-2.5 -translate-y-1/2 ltr:-translate-x-1/2 rtl:translate-x-1/2 rounded-full border-[1.5px] border-ink bg-paper"
        style={{ insetInlineStart: `${from}%` }}
      />
      {due !== null && (
        <svg
          aria-hidden
          viewBox="0 0 10 7"
          className={`absolute bottom-0.5 h-[6px] w-[9px] ltr:-translate-x-1/2 rtl:translate-x-1/2 ${isOver ? "text-late" : "text-act"}`}
          style={{ insetInlineStart: `${due}%` }}
        >
          <path d="M5 0 10 7H0z" fill="currentColor" />
        </svg>
      )}
    </div>
  );
}
