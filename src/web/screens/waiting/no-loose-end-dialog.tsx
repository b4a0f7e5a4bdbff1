import { LOOSE_END_NAMES, type LooseEndKind } from "../../../core/loose-ends/loose-end";
import { commonTexts } from "../../../texts/en/common";
import { waitingTexts } from "../../../texts/en/waiting";
import type { RowView } from "../../server/base/row-view.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import { useSay } from "../../ui/texts/use-say";
import { FormFoot } from "../forms/form-foot";
import { useFormAction } from "../forms/use-form-action";

type NoLooseEndDialogProps = { readonly kind: LooseEndKind; readonly row: RowView; readonly onClose: () => void };

/** Says that something is no loose end, and why; it counts again once something happens in it. */
export function NoLooseEndDialog({ kind, row, onClose }: NoLooseEndDialogProps) {
  const say = useSay(waitingTexts, commonTexts);
  const back = useFormAction("loose-ends");
  const { Form, action, refused, isBusy } = useFormAction("loose-ends", () => {
    const fields = { do: "take-back", conversation: row.id, kind };
    notice(say("waiting.notALooseEnd", { subject: row.subject || say("common.noSubjectInside") }), {
      action: { label: say("common.undo"), onClick: () => back.post(fields) },
    });
    onClose();
  });
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={say("waiting.notALooseEndAlone")}
      description={say("waiting.itCountsAgainOnceSomething", {
        name: LOOSE_END_NAMES[kind],
        subject: row.subject || say("common.noSubjectInside"),
      })}
    >
      <Form method="post" action={action} noValidate className="space-y-3 px-4 py-3">
        <input type="hidden" name="do" value="dismiss" />
        <input type="hidden" name="conversation" value={row.id} />
        <input type="hidden" name="kind" value={kind} />
        <Field
          label={say("waiting.why")}
          name="reason"
          placeholder={say("waiting.theyRangItIsBeing")}
          autoFocus
          autoComplete="off"
          problem={refused?.problems.reason}
        />
        <FormFoot problem={refused?.problem} onClose={onClose}>
          <Button look="filled" type="submit" disabled={isBusy}>
            {say("waiting.notALooseEndAlone")}
          </Button>
        </FormFoot>
      </Form>
    </Dialog>
  );
}
