import { decidingTexts } from "../../../texts/en/deciding";
import type { DateAnswer } from "../../server/deciding/date-view.server";
import { useSay } from "../../ui/texts/use-say";

type MeantDateProps = {
  readonly said: Pick<DateAnswer, "meant" | "other"> | null;
  readonly onChoose: (at: string) => void;
};

/** Which moment the words in a date field mean; both where they are read in two ways. */
export function AmbiguousDate({ said, onChoose }: MeantDateProps) {
  const say = useSay(decidingTexts);
  const other = said?.other;
  return (
    <p role="status" className="min-h-5 pt-1 text-sm text-act">
      {said?.meant == null ? "" : say("deciding.thatIs", { words: said.meant.words })}
      {other != null && (
        <button type="button" onClick={() => onChoose(other.at)} className="ml-1 underline-offset-2 hover:underline">
          {say("deciding.toOthersItIsChoose", { words: other.words })}
        </button>
      )}
    </p>
  );
}
