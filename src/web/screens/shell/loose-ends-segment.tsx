import { useEffect, useState } from "react";
import { NavLink } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { shellTexts } from "../../../texts/en/shell";
import { useSay } from "../../ui/texts/use-say";

type LooseEndsSegmentProps = {
  readonly slug: string;
  /** What the gauge says: once that is other, the count may be. */
  readonly gauge: string;
  /** How many there are, where that came with what changed. */
  readonly given: number | null;
};

/** How many loose ends there are, at the end of the flow; asked for by itself where no page is to wait for it. */
export function LooseEndsSegment({ slug, gauge, given }: LooseEndsSegmentProps) {
  const say = useSay(shellTexts, commonTexts);
  const [counted, setCount] = useState<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: counted anew whenever the gauge is another one
  useEffect(() => {
    if (given !== null) return setCount(given);
    const aborter = new AbortController();
    fetch(`/${slug}/loose-ends/count`, { signal: aborter.signal })
      .then((response) => (response.ok ? response.json() : Promise.reject(new Error("no count"))))
      .then((found: { count: number }) => setCount(found.count))
      // The last count stands until there is another one.
      .catch(() => {});
    return () => aborter.abort();
  }, [slug, gauge]);
  const count = given ?? counted;
  return (
    <NavLink
      to={`/${slug}/loose-ends`}
      aria-label={count === null ? say("common.looseEnds") : say("shell.looseEnds", { count })}
      className={({ isActive }) => `segment sm:min-w-[116px] sm:shrink-0 ${isActive ? "is-open" : "bg-sunk/60"}`}
    >
      <b className="block">{say("common.looseEnds")}</b>
      <span className="count block">{count ?? " "}</span>
    </NavLink>
  );
}
