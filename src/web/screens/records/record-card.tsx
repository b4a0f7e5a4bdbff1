import type { ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { RecordCardView } from "../../server/records/record-view.server";
import type { KeptView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import type { RecordsOutcome } from "../forms/records-outcome";
import { useFormAction } from "../forms/use-form-action";
import { OwnerBadge } from "../frame/owner-badge";
import { useTray } from "../frame/tray-data";
import { ExportDialog } from "./export-dialog";
import { RecordKept } from "./record-kept";

type RecordCardProps = {
  readonly card: RecordCardView;
  readonly kept: KeptView;
  readonly recordId: string;
  readonly code: string;
  readonly closed: boolean;
  /** What the page is filtered to; empty for everything. */
  readonly text: string;
};

/** What the register says of a record: who is responsible, who is in it, what stands under it, and what was done to it. */
export function RecordCard({ card, kept, recordId, code, closed, text }: RecordCardProps) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray, members, mayDecide, mayLead } = useTray();
  const { post, refused, isBusy } = useFormAction<RecordsOutcome>(`records/${code}`);
  const nameOf = (id: string | null) =>
    members.find((one) => one.id === id)?.name ?? say("records.aColleagueOfAnotherTray");
  const { responsibleId, addresses, note } = card.edited;
  return (
    <div>
      <dl className="grid grid-cols-[92px_minmax(0,1fr)] gap-x-3 text-sm">
        <Line name={say("records.responsible")}>
          {responsibleId === null ? (
            <span className="text-soft">{say("common.nobodyYet")}</span>
          ) : (
            <span className="flex items-center gap-2">
              <OwnerBadge ownerId={responsibleId} /> {nameOf(responsibleId)}
            </span>
          )}
        </Line>
        <Line name={say("records.opened")}>{card.opened}</Line>
        {card.closed !== null && <Line name={say("records.closedAsState")}>{card.closed}</Line>}
        <Line name={say("records.access")}>
          {card.viewers === null ? (
            say("common.everybodyInside")
          ) : (
            <span>
              {card.viewers.map(nameOf).join(", ")} <span className="text-soft">{say("records.andNobodyElse")}</span>
            </span>
          )}
        </Line>
        <Line name={say("records.people")}>
          {addresses.length === 0 ? (
            <span className="text-soft">{say("records.noneNamed")}</span>
          ) : (
            <ul>
              {addresses.map((address) => (
                <li key={address} className="truncate">
                  {address}
                </li>
              ))}
            </ul>
          )}
        </Line>
        {note !== "" && (
          <Line name={say("records.goodToKnow")}>
            <span className="whitespace-pre-line">{note}</span>
          </Line>
        )}
        <Line name={say("records.subRecords")}>
          {card.under.length === 0 ? (
            <span className="text-soft">{say("common.none")}</span>
          ) : (
            <Under records={card.under} />
          )}
          {mayDecide && (
            <Link
              to={`/${tray.slug}/records?new&under=${code}`}
              className="block min-h-6 text-act underline-offset-2 hover:underline"
            >
              {say("records.newSubRecord")}
            </Link>
          )}
        </Line>
      </dl>
      {mayDecide && (
        <Button className="mt-3" disabled={isBusy} onClick={() => post({ do: closed ? "reopen" : "close" })}>
          {closed ? say("records.reopenRecord") : say("records.closeRecord")}
        </Button>
      )}
      {mayLead && <MergeForm code={code} />}
      <RecordKept key={kept.holds.length} kept={kept} recordId={recordId} />
      <section aria-label={say("common.export")} className="mt-5">
        <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("common.export")}</h2>
        <ExportDialog key={text} code={code} text={text} />
      </section>
      {refused?.problem != null && (
        <p role="alert" className="mt-2 text-late">
          {refused.problem}
        </p>
      )}
      {card.steps.length > 0 && (
        <section aria-label={say("records.history")} className="mt-5">
          <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("records.history")}</h2>
          <ul className="text-sm">
            {card.steps.map(({ id, by, words, when }) => (
              <li key={id} className="flex gap-3 border-b border-hair py-1">
                <span className="min-w-0 flex-1">
                  {nameOf(by)} {words}
                </span>
                <span className="shrink-0 text-soft">{when}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Line({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <>
      <dt className="border-b border-hair py-1.5 text-soft">{name}</dt>
      <dd className="border-b border-hair py-1.5">{children}</dd>
    </>
  );
}

function Under({ records }: { readonly records: RecordCardView["under"] }) {
  const say = useSay(recordsTexts);
  const { tray } = useTray();
  return (
    <ul>
      {records.map(({ code, title, closed }) => (
        <li key={code} className="truncate">
          <Link to={`/${tray.slug}/records/${code}`} className="hover:text-act hover:underline">
            <span className="text-soft">{code}</span> {title}
          </Link>
          {closed && <span className="text-soft">{say("records.closed")}</span>}
        </li>
      ))}
    </ul>
  );
}

/** What is filed on it is filed on another record from then on. */
function MergeForm({ code }: { readonly code: string }) {
  const say = useSay(recordsTexts, commonTexts);
  const { tray } = useTray();
  const navigate = useNavigate();
  const { Form, action, refused, isBusy } = useFormAction<RecordsOutcome>(
    `records/${code}`,
    (merged) => void navigate(`/${tray.slug}/records/${merged.code}`),
  );
  return (
    <Form
      method="post"
      action={action}
      noValidate
      aria-label={say("common.merge")}
      className="mt-4 flex items-end gap-2"
    >
      <input type="hidden" name="do" value="merge" />
      <Field
        label={say("records.mergeInto")}
        name="into"
        placeholder={say("records.theCodeOfARecord")}
        problem={refused?.problems.code ?? refused?.problem ?? undefined}
        autoComplete="off"
        className="flex-1"
      />
      <Button type="submit" className={refused === null ? "h-9" : "mb-6 h-9"} disabled={isBusy}>
        {say("common.merge")}
      </Button>
    </Form>
  );
}
