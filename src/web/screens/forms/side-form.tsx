import type { ReactNode } from "react";
import { Button } from "../../ui/button";
import { FormFoot } from "./form-foot";
import type { FormOutcome, useFormAction } from "./use-form-action";

type SideFormProps = {
  readonly name: string;
  readonly step: Pick<ReturnType<typeof useFormAction<FormOutcome>>, "Form" | "action" | "refused" | "isBusy">;
  readonly submits: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
};

/** A form at the side of a page, by which something is made or changed: its fields, what is wrong as a whole, and the ways out. */
export function SideForm({ name, step: { Form, action, refused, isBusy }, submits, onClose, children }: SideFormProps) {
  return (
    <Form
      method="post"
      action={action}
      noValidate
      aria-label={name}
      className="space-y-3 self-start rounded-sheet border border-rule bg-paper p-3.5"
    >
      {children}
      <FormFoot problem={refused?.problem} onClose={onClose}>
        <Button look="filled" type="submit" disabled={isBusy}>
          {submits}
        </Button>
      </FormFoot>
    </Form>
  );
}
