import { useState } from "react";
import { writingTexts } from "../../../texts/en/writing";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";

/** Sends what could not be delivered to another address, in one step. */
export function SendToAnother({ messageId }: { readonly messageId: string }) {
  const say = useSay(writingTexts);
  const [isAsking, setAsking] = useState(false);
  const { Form, action, isBusy, problems } = useFormAction(`messages/${messageId}/send-to`, () => setAsking(false));
  return (
    <>
      <Button aria-haspopup="dialog" onClick={() => setAsking(true)}>
        {say("writing.toAnotherAddress")}
      </Button>
      <Dialog
        open={isAsking}
        onOpenChange={setAsking}
        title={say("writing.sendToAnotherAddress")}
        description={say("writing.theSameWordsGo")}
      >
        <Form method="post" action={action} className="flex items-end gap-2 px-4 py-3">
          <Field
            className="flex-1"
            label={say("writing.address")}
            name="address"
            autoFocus
            autoComplete="off"
            problem={problems.address}
          />
          <Button type="submit" look="filled" className="h-9" disabled={isBusy}>
            {say("writing.send")}
          </Button>
        </Form>
      </Dialog>
    </>
  );
}
