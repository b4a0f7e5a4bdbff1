import { useState } from "react";
import { Link } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { RetainedLineView, RetentionView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import { DisposalSheet } from "./disposal-sheet";
import { PolicyList } from "./policy-list";
import type { RetentionOutcome } from "./retention-outcome";

/** What is due to be looked at first; beside it what would go, and the policies below. */
export function RetentionScreen({ retention }: { readonly retention: RetentionView }) {
  const say = useSay(recordsTexts);
  const { due, coming, held, counts, certificates } = retention;
  const [looked, setLooked] = useState<RetainedLineView | null>(null);
  const step = useFormAction<RetentionOutcome>("retention", () => {});
  return (
    <div className="grid gap-x-8 px-5 py-4 lg:grid-cols-[minmax(0,1fr)_460px]">
      <div className="min-w-0 space-y-6">
        <Lines
          name={say("records.dueForReview")}
          lines={due}
          count={counts.due}
          empty={say("records.noRecordIsDueWhat")}
        >
          {(line) => (
            <Button
              className="h-7"
              aria-label={say("records.reviewDisposalOf", { code: line.code })}
              aria-pressed={looked?.id === line.id}
              onClick={() => setLooked(line)}
            >
              {say("records.review")}
            </Button>
          )}
        </Lines>
        {held.length > 0 && <Lines name={say("records.onHold")} lines={held} count={counts.held} empty="" />}
        {coming.length > 0 && <Lines name={say("records.withinAYear")} lines={coming} count={counts.coming} empty="" />}
        <Certificates certificates={certificates} />
      </div>
      <div className="min-w-0 space-y-6 max-lg:mt-6">
        {looked !== null && <DisposalSheet key={looked.id} record={looked} onClose={() => setLooked(null)} />}
        <PolicyList retention={retention} step={step} />
      </div>
    </div>
  );
}

type LinesProps = {
  readonly name: string;
  readonly lines: readonly RetainedLineView[];
  readonly count: number;
  readonly empty: string;
  readonly children?: (line: RetainedLineView) => React.ReactNode;
};

function Lines({ name, lines, count, empty, children }: LinesProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray } = useTray();
  return (
    <section aria-label={name}>
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">
        {name} {count > 0 && <span className="font-normal text-soft">{say({ figure: count })}</span>}
      </h2>
      {lines.length === 0 && <p className="py-3 text-soft">{empty}</p>}
      <ul>
        {lines.map((line) => (
          <li key={line.id} className="flex items-center gap-4 border-b border-hair py-2">
            <div className="min-w-0 flex-1">
              <p className="flex min-w-0 flex-wrap items-baseline gap-x-3">
                <span className="shrink-0 text-sm text-soft">{line.code}</span>
                <Link
                  to={`/${tray.slug}/records/${line.code}`}
                  className="min-w-0 truncate font-serif text-[15px] hover:text-act hover:underline"
                >
                  {line.title}
                </Link>
                <span className="shrink-0 text-sm text-soft">
                  {line.kind}, {say("common.conversations", { count: line.filed })}
                </span>
              </p>
              <p className="text-sm text-soft">
                {line.goes !== null && (
                  <b className="font-semibold text-late">{say("records.goesByItself", { goes: line.goes })} </b>
                )}
                <span className="inline-block first-letter:uppercase">
                  {line.until.replace(/^until/, say("records.keptUntil"))}:
                </span>{" "}
                {line.why}
              </p>
            </div>
            {children?.(line)}
          </li>
        ))}
      </ul>
      {count > lines.length && (
        <p className="py-2 text-sm text-soft">
          {say("records.ofAreShownTheFirst", { count: lines.length, count2: count })}
        </p>
      )}
    </section>
  );
}

function Certificates({ certificates }: { readonly certificates: RetentionView["certificates"] }) {
  const say = useSay(recordsTexts);
  return (
    <section aria-label={say("records.disposedOf")}>
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("records.disposedOf")}</h2>
      {certificates.length === 0 && <p className="py-3 text-soft">{say("records.nothingYetEachDisposalLeaves")}</p>}
      <ul>
        {certificates.map((one) => (
          <li key={one.id} className="border-b border-hair py-2">
            <p>
              <span className="text-sm text-soft">{one.code}</span>{" "}
              <span className="font-serif text-[15px]">{one.title}</span>{" "}
              <span className="text-sm text-soft">
                {say("records.kindWhenBy", { kind: one.kind, when: one.when, byName: one.byName })}
              </span>
            </p>
            <p className="text-sm text-soft">
              {say("records.conversationsMessagesDocumentsStayWith", {
                conversations: one.conversations,
                messages: one.messages,
                documents: one.documents,
                count: one.size,
                elsewhere: one.elsewhere,
                why: one.why,
                previewed: one.previewed,
              })}
            </p>
            <p className="truncate text-xs text-soft" title={say("records.sha256OfTheList")}>
              {say("records.sha256", { digest: one.digest })}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
