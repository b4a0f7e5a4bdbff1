import type { ComponentProps, ReactNode } from "react";
import { commonTexts } from "../../../texts/en/common";
import { writingTexts } from "../../../texts/en/writing";
import { Button, KeyCap } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";
import { SendLater } from "../later-letters/send-later";
import { SendButton } from "./send-button";

type ComposerWaysProps = ComponentProps<typeof SendButton> & {
  /** Why it did not go; null where nothing is wrong with it as a whole. */
  readonly problem: string | null;
  /** Sends it all the same; null where nothing is against it. */
  readonly onInsist: (() => void) | null;
  /** What goes later; null for what colleagues write together. */
  readonly later: Omit<ComponentProps<typeof SendLater>, "isDisabled"> | null;
  /** Gives it to a colleague; null where that is not to be had. */
  readonly handing: { readonly isOpen: boolean; readonly toggle: () => void } | null;
  readonly onClose: () => void;
  /** How the draft stands. */
  readonly children: ReactNode;
};

/** What can be done with an answer that is written: sent now or later, handed over, left. */
export function ComposerWays({ problem, onInsist, later, handing, onClose, children, ...sending }: ComposerWaysProps) {
  const say = useSay(writingTexts, commonTexts);
  return (
    <div className="flex flex-wrap items-center gap-2">
      {problem !== null && (
        <p role="alert" className="basis-full text-late">
          {problem}
        </p>
      )}
      <SendButton {...sending} />
      {later !== null && <SendLater isDisabled={sending.isAttaching || sending.isSending} {...later} />}
      {onInsist !== null && <Button onClick={onInsist}>{say("writing.sendAllTheSame")}</Button>}
      {handing !== null && (
        <Button aria-expanded={handing.isOpen} onClick={handing.toggle}>
          {say("writing.handOverToAColleague")}
        </Button>
      )}
      <Button look="quiet" onClick={onClose}>
        {say("common.close")} <KeyCap>{say("writing.esc")}</KeyCap>
      </Button>
      <span className="ml-auto">{children}</span>
    </div>
  );
}
