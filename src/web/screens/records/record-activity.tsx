import { lazy, Suspense, useMemo } from "react";
import { recordsTexts } from "../../../texts/en/records";
import type { monthsView } from "../../server/records/record-view.server";
import { useSay } from "../../ui/texts/use-say";

const PairedBars = lazy(() => import("../../ui/paired-bars"));

/** How much was written on a record, month by month. */
export function RecordActivity({ months }: { readonly months: ReturnType<typeof monthsView> }) {
  const say = useSay(recordsTexts);
  const points = useMemo(() => months.map(({ label, came, went }) => ({ label, first: came, second: went })), [months]);
  const sum = (of: "came" | "went") => months.reduce((all, month) => all + month[of], 0);
  const span =
    months.length === 1
      ? (months[0]?.label ?? "")
      : say("records.to", { first: months[0]?.label ?? "", last: months.at(-1)?.label ?? "" });
  if (months.length === 0) return <p className="px-5 py-6 text-soft">{say("records.nothingHasBeenWrittenOn")}</p>;
  return (
    <section aria-label={say("records.messagesByMonth")} className="max-w-3xl px-5 py-4">
      <h2 className="text-sm font-semibold">{say("records.messagesByMonthOf", { span })}</h2>
      <p className="text-sm text-soft">{say("records.cameAndWent", { came: sum("came"), went: sum("went") })}</p>
      <Suspense fallback={<div className="h-[172px]" />}>
        <PairedBars
          points={points}
          names={{ first: say("records.cameInside"), second: say("records.wentInside") }}
          words={say("records.inMonthsMessagesCameAnd", {
            count: months.length,
            came: sum("came"),
            went: sum("went"),
          })}
          interval={Math.floor(months.length / 8)}
        />
      </Suspense>
    </section>
  );
}
