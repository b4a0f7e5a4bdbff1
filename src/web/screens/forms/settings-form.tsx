import type { ReactNode } from "react";
import { commonTexts } from "../../../texts/en/common";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import type { FormOutcome, useFormAction } from "./use-form-action";

type SettingsFormProps = {
  readonly step: Pick<ReturnType<typeof useFormAction<FormOutcome>>, "Form" | "action" | "refused" | "isBusy">;
  /** What it is called where the heading above it is not what it is about. */
  readonly name?: string;
  /** What is done by it, where a page has several. */
  readonly does?: string;
  /** Whether whoever looks may change anything; what stands is shown to all. */
  readonly mayChange?: boolean;
  /** The words of its button; "Save" where they are left out. */
  readonly submits?: string;
  /** A form beside one whose button is the likely next step. */
  readonly isSecond?: boolean;
  readonly hasFiles?: boolean;
  readonly children: ReactNode;
};

/** Settings that are saved together: their fields, what is wrong as a whole, and one button. */
export function SettingsForm(props: SettingsFormProps) {
  const { step, name, does, mayChange = true, submits, isSecond = false, hasFiles = false, children } = props;
  const say = useSay(commonTexts);
  const { Form, action, refused, isBusy } = step;
  return (
    <Form
      method="post"
      action={action}
      encType={hasFiles ? "multipart/form-data" : "application/x-www-form-urlencoded"}
      noValidate
      aria-label={name}
    >
      {does !== undefined && <input type="hidden" name="do" value={does} />}
      <fieldset disabled={!mayChange}>{children}</fieldset>
      {refused?.problem != null && (
        <p role="alert" className="pt-3 text-late">
          {refused.problem}
        </p>
      )}
      {mayChange && (
        <Button look={isSecond ? "outline" : "filled"} type="submit" disabled={isBusy} className="my-3">
          {submits ?? say("common.save")}
        </Button>
      )}
    </Form>
  );
}
