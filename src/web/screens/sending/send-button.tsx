import { writingTexts } from "../../../texts/en/writing";
import { Button, KeyCap } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";

type SendButtonProps = {
  readonly words: string;
  readonly isSending: boolean;
  /** A file is on its way, without which the message would go. */
  readonly isAttaching: boolean;
};

/** Sends a message, but for while it is sent already or not whole yet. */
export function SendButton({ words, isSending, isAttaching }: SendButtonProps) {
  const say = useSay(writingTexts);
  const shown = isAttaching ? say("writing.attaching") : words;
  return (
    <Button look="filled" type="submit" disabled={isAttaching || isSending}>
      {isSending ? say("writing.sending") : shown} <KeyCap>{say("writing.ctrl")}</KeyCap>
    </Button>
  );
}
