import { LOOSE_END_NAMES, type LooseEndKind } from "../../../core/loose-ends/loose-end";
import type { RowView } from "../../server/base/words.server";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { notice } from "../../ui/notices";
import { useStep } from "../frame/use-step";

type NoLooseEndDialogProps = { readonly kind: LooseEndKind; readonly row: RowView; readonly onClose: () => void };

/** Says that something is no loose end, and why; it counts again once something happens in it. */
export function NoLooseEndDialog({ kind, row, onClose }: NoLooseEndDialogProps) {
  const back = useStep("loose-ends");
  const { Form, action, refused, isBusy } = useStep("loose-ends", () => {
    const fields = { do: "take-back", conversation: row.id, kind };
    notice(`Not a loose end: ${row.subject || "no subject"}`, {
      action: { label: "Undo", onClick: () => back.post(fields) },
    });
    onClose();
  });
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Not a loose end"
      description={`${LOOSE_END_NAMES[kind]}: ${row.subject || "no subject"}. It counts again once something happens in it.`}
    >
      <Form method="post" action={action} noValidate className="space-y-3 px-4 py-3">
        <input type="hidden" name="do" value="dismiss" />
        <input type="hidden" name="conversation" value={row.id} />
        <input type="hidden" name="kind" value={kind} />
        <Field
          label="Why"
          name="reason"
          placeholder="they rang, it is being done"
          autoFocus
          autoComplete="off"
          problem={refused?.problems.reason ?? refused?.problem ?? undefined}
        />
        <div className="flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="filled" type="submit" disabled={isBusy}>
            Not a loose end
          </Button>
        </div>
      </Form>
    </Dialog>
  );
}
