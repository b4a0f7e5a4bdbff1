import { commonTexts } from "../../../texts/en/common";
import { roundsTexts } from "../../../texts/en/rounds";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { useSay } from "../../ui/texts/use-say";
import { useFormAction } from "../forms/use-form-action";
import type { RoundView } from "./round-list";

/** A round being written or changed. */
export function RoundForm({ round, onClose }: { round: RoundView | null; onClose: () => void }) {
  const say = useSay(roundsTexts, commonTexts);
  const { Form, action, problems, refused, isBusy } = useFormAction("rounds", onClose);
  const name = round === null ? say("rounds.newRound") : say("rounds.roundCalled", { name: round.name });
  return (
    <Form
      method="post"
      action={action}
      noValidate
      aria-label={name}
      className="rounded-sheet border border-rule bg-sunk/40 px-4 py-3"
    >
      <input type="hidden" name="do" value="keep" />
      <input type="hidden" name="id" value={round?.id ?? ""} />
      <div className="flex flex-wrap items-start gap-3">
        <Field
          label={say("common.name")}
          name="name"
          defaultValue={round?.name}
          problem={problems.name}
          autoFocus
          autoComplete="off"
          className="min-w-56 flex-1"
        />
        <Field
          label={say("rounds.timesOnWorkingDays")}
          name="times"
          defaultValue={round?.times.join(", ")}
          placeholder="11:00, 16:00"
          problem={problems.times}
          autoComplete="off"
          className="min-w-56 flex-1"
        />
        <div className="mt-[25px] flex gap-2">
          <Button look="filled" type="submit" className="h-9!" disabled={isBusy}>
            {say("common.save")}
          </Button>
          <Button look="quiet" className="h-9!" onClick={onClose}>
            {say("common.cancel")}
          </Button>
        </div>
      </div>
      {refused?.problem != null && (
        <p role="alert" className="pt-2 text-late">
          {refused.problem}
        </p>
      )}
    </Form>
  );
}
