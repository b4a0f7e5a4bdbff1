import type { ReactNode } from "react";
import type { Draft } from "../../../core/writing/draft";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Select } from "../../ui/select";
import { useSay } from "../../ui/texts/use-say";
import { Tick } from "../../ui/tick";
import { useTray } from "../frame/tray-data";

type LetterOptionsProps = {
  readonly draft: Pick<Draft, "report" | "expires" | "bcc">;
  readonly change: (part: Partial<Draft>) => void;
  readonly children?: ReactNode;
};

/** How a message of ours goes: whether it is reported what becomes of it, and until when it matters. */
export function LetterOptions({ draft, change, children }: LetterOptionsProps) {
  const say = useSay(writingTexts, commonTexts);
  const { dateChoices } = useTray();
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
      <Tick
        checked={draft.report === "on"}
        onTick={(isOn) => change({ report: isOn ? "on" : "" })}
        className="text-sm text-soft"
      >
        {say("writing.askForADeliveryReport")}
      </Tick>
      <Select
        label={say("writing.expires")}
        look="quiet"
        value={draft.expires ?? ""}
        onChoose={(expires) => change({ expires })}
        choices={[
          ["", say("common.noExpiry")],
          ...dateChoices.map(({ day, words }) => [day, say("writing.expiresWords", { words })] as const),
        ]}
      />
      {draft.bcc === undefined && (
        <button
          type="button"
          onClick={() => change({ bcc: "" })}
          className="min-h-6 px-1 text-sm text-soft underline-offset-2 hover:text-act hover:underline"
        >
          {say("writing.addBcc")}
        </button>
      )}
      {children}
    </div>
  );
}
