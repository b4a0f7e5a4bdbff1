import { useState } from "react";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { useTray } from "../frame/tray-data";

type HandDraftProps = {
  readonly problems: { readonly member?: string; readonly note?: string };
  readonly isBusy: boolean;
  readonly onHand: (to: { readonly member: string; readonly note: string }) => void;
};

/** Gives the draft to a colleague: whom, and a word with it. */
export function HandOverDraft({ problems, isBusy, onHand }: HandDraftProps) {
  const say = useSay(writingTexts, commonTexts);
  const { members, member } = useTray();
  const others = members.filter((one) => one.id !== member.id && !one.reads);
  const [to, setTo] = useState("");
  const [note, setNote] = useState("");
  return (
    <fieldset className="mt-3 flex flex-wrap items-end gap-2 border-t border-hair pt-2.5">
      <legend className="sr-only">{say("writing.handTheDraftOverTo")}</legend>
      <div>
        <span className="mb-1 block text-sm font-semibold">{say("writing.toCheckAndSend")}</span>
        <Select
          label={say("writing.whoIsToCheckAnd")}
          value={to}
          choices={[
            ["", say("writing.chooseAColleague")],
            ...others.map(
              ({ id, name, away }) =>
                [id, away === null ? name : say("writing.awayUntil", { name, back: away.back })] as const,
            ),
          ]}
          onChoose={setTo}
        />
        {problems.member !== undefined && (
          <p role="alert" className="mt-1 text-sm text-late">
            {problems.member}
          </p>
        )}
      </div>
      <Field
        label={say("common.internalNote")}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        // Within the form of the answer: what is pressed here must not send that.
        onKeyDown={(event) => {
          if (event.key !== "Enter" || event.ctrlKey || event.metaKey) return;
          event.preventDefault();
          onHand({ member: to, note });
        }}
        className="min-w-48 flex-1"
        problem={problems.note}
      />
      <Button disabled={isBusy} onClick={() => onHand({ member: to, note })}>
        {say("common.handOver")}
      </Button>
    </fieldset>
  );
}
