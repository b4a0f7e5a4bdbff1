import type { MailMessage } from "../../core/message/mail-message";
import { startThread } from "./thread";

/** Understands many messages beside what this thread does meanwhile. */
export type AsideParser = {
  /** The messages in the same order, as `parseMessage` understands them. Rejects when the thread broke down. */
  readonly parse: (raws: readonly Uint8Array[]) => Promise<readonly MailMessage[]>;
  readonly close: () => Promise<void>;
};

/** Starts a thread that parses. Close it, or the process does not end. */
export function parserAside(): AsideParser {
  const { ask, close } = startThread<readonly Uint8Array[], readonly MailMessage[]>("parse-worker.ts");
  return {
    parse: (raws) => {
      // Copies: what is read from a file shares its memory with what comes after it.
      const copies = raws.map((raw) => Uint8Array.from(raw));
      return ask(
        copies,
        copies.map(({ buffer }) => buffer),
      );
    },
    close,
  };
}
