import { commonTexts } from "../../../texts/en/common";
import { recordsTexts } from "../../../texts/en/records";
import type { KeptView } from "../../server/records/retention-view.server";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import { useTray } from "../frame/tray-data";
import type { RetentionOutcome } from "./retention-outcome";

/** How long a record is kept and why; those who lead hold it, or give it a policy of its own. */
export function RecordKept({ kept, recordId }: { readonly kept: KeptView; readonly recordId: string }) {
  const say = useSay(recordsTexts, commonTexts);
  const { mayLead, members } = useTray();
  const { Form, action, refused, isBusy, post } = useFormAction<RetentionOutcome>("retention");
  const nameOf = (id: string) => members.find((one) => one.id === id)?.name ?? say("records.aColleague");
  return (
    <section aria-label={say("records.retention")} className="mt-5">
      <h2 className="border-b border-rule pb-1 text-sm font-semibold">{say("records.retention")}</h2>
      <p className="pt-1.5 text-sm first-letter:uppercase">
        {kept.until}, <span className="text-soft">{kept.why}</span>
      </p>
      <ul className="text-sm">
        {kept.holds.map(({ id, reason, by, when }) => (
          <li key={id} className="flex items-baseline gap-3 border-b border-hair py-1">
            <span className="min-w-0 flex-1">
              {reason} <span className="text-soft">{say("records.heldBy", { name: nameOf(by), when })}</span>
            </span>
            {mayLead && (
              <button
                type="button"
                aria-label={say("records.endTheHold", { reason })}
                className="min-h-6 text-act hover:underline"
                onClick={() => post({ do: "release", record: recordId, hold: id })}
              >
                {say("records.endHold")}
              </button>
            )}
          </li>
        ))}
      </ul>
      {mayLead && (
        <>
          {kept.policies.length > 0 && (
            <p className="flex items-baseline gap-2 pt-1.5 text-sm">
              {say("records.itsOwnPolicy")}
              <Select
                label={say("records.itsOwnPolicy")}
                look="quiet"
                value={kept.policyId ?? ""}
                choices={[["", say("common.none")], ...kept.policies.map(({ id, name }) => [id, name] as const)]}
                onChoose={(policy) => post({ do: "bear", bearer: "record", id: recordId, policy })}
              />
            </p>
          )}
          <Form
            method="post"
            action={action}
            noValidate
            aria-label={say("records.placeOnHold")}
            className="mt-2 flex items-end gap-2"
          >
            <input type="hidden" name="do" value="hold" />
            <input type="hidden" name="record" value={recordId} />
            <Field
              label={say("records.reasonForAHold")}
              name="reason"
              placeholder={say("records.why")}
              autoComplete="off"
              className="flex-1"
            />
            <Button type="submit" className="h-9" disabled={isBusy}>
              {say("records.placeOnHold")}
            </Button>
          </Form>
          {refused?.problem != null && (
            <p role="alert" className="mt-1 text-sm text-late">
              {refused.problem}
            </p>
          )}
        </>
      )}
    </section>
  );
}
