import { useState } from "react";
import type { Draft } from "../../../core/writing/draft";
import { writingTexts } from "../../../texts/en/writing";
import { useAltKey } from "../../keys/use-alt-key";
import { Button, KeyCap } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { type LaterChosen, LaterDialog } from "./later-dialog";

type SendLaterProps = {
  readonly draft: Draft;
  readonly conversationId: string | null;
  readonly isDisabled: boolean;
  /** What its form posts besides for it to go later. */
  readonly onLater: (fields: LaterFields) => void;
};

/** What a letter's form says of when it goes, and the draft that it stays until then. */
export type LaterFields = {
  /** The moments, apart by spaces. */
  readonly later: string;
  readonly ifSilent: "on" | "";
  readonly untilSettled: "on" | "";
  readonly content: string;
};

/** Sends a letter later: asks when. */
export function SendLater({ draft, conversationId, isDisabled, onLater }: SendLaterProps) {
  const say = useSay(writingTexts);
  const [isAsking, setAsking] = useState(false);
  useAltKey("KeyL", isDisabled ? null : () => setAsking(true));
  const choose = ({ moments, ifSilent, untilSettled }: LaterChosen) => {
    setAsking(false);
    const terms = { ifSilent: ifSilent ? "on" : "", untilSettled: untilSettled ? "on" : "" } as const;
    onLater({ later: moments.join(" "), ...terms, content: JSON.stringify(draft) });
  };
  return (
    <>
      <Button aria-haspopup="dialog" aria-keyshortcuts="Alt+L" disabled={isDisabled} onClick={() => setAsking(true)}>
        {say("writing.sendLater")} <KeyCap>{say("writing.altL")}</KeyCap>
      </Button>
      {isAsking && (
        <LaterDialog
          to={draft.to}
          conversationId={conversationId}
          asksTerms
          onChoose={choose}
          onClose={() => setAsking(false)}
        />
      )}
    </>
  );
}
