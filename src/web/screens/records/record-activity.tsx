import { lazy, Suspense, useMemo } from "react";
import type { monthsView } from "../../server/records/record-view.server";

const PairedBars = lazy(() => import("../../ui/paired-bars"));
const NAMES = { first: "came", second: "went" } as const;

/** How much was written on a record, month by month. */
export function RecordActivity({ months }: { readonly months: ReturnType<typeof monthsView> }) {
  const points = useMemo(() => months.map(({ label, came, went }) => ({ label, first: came, second: went })), [months]);
  const sum = (of: "came" | "went") => months.reduce((all, month) => all + month[of], 0);
  const span = months.length === 1 ? (months[0]?.label ?? "") : `${months[0]?.label} to ${months.at(-1)?.label}`;
  if (months.length === 0) return <p className="px-5 py-6 text-soft">Nothing has been written on this record yet.</p>;
  return (
    <section aria-label="Messages by month" className="max-w-3xl px-5 py-4">
      <h2 className="text-sm font-semibold">Messages by month, {span}</h2>
      <p className="text-sm text-soft">
        {sum("came").toLocaleString("en")} came and {sum("went").toLocaleString("en")} went.
      </p>
      <Suspense fallback={<div className="h-[172px]" />}>
        <PairedBars
          points={points}
          names={NAMES}
          words={`In ${months.length} months ${sum("came")} messages came and ${sum("went")} went.`}
          interval={Math.floor(months.length / 8)}
        />
      </Suspense>
    </section>
  );
}
