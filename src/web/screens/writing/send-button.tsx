import { Button, KeyCap } from "../../ui/button";

type SendButtonProps = {
  readonly words: string;
  readonly isSending: boolean;
  /** A file is on its way, without which the message would go. */
  readonly isAttaching: boolean;
};

/** Sends a message, but for while it is sent already or not whole yet. */
export function SendButton({ words, isSending, isAttaching }: SendButtonProps) {
  const shown = isAttaching ? "Attaching…" : words;
  return (
    <Button look="filled" type="submit" disabled={isAttaching || isSending}>
      {isSending ? "Sending…" : shown} <KeyCap>Ctrl ⏎</KeyCap>
    </Button>
  );
}
