import type { JournalEntry } from "../journal/entry";
import type { Instant } from "../kernel/instant";
import type { MessageKind } from "../message/mail-message";
import { moveEffect } from "./move-effect";

type LapsingMessage = {
  readonly version: number;
  readonly direction: "in" | "out";
  readonly kind: MessageKind;
  readonly expiresAt?: Instant | null;
};

/**
 * When a conversation stops to matter: by hand, or as its newest message by a person says, whichever the conversation
 * learned of last; null when it matters for good, and once it has lapsed.
 */
export function lapsesAt(messages: readonly LapsingMessage[], entries: readonly JournalEntry[]): Instant | null {
  const said = messages.flatMap((message) => {
    const isReal = moveEffect(message) === "they-wrote" || moveEffect(message) === "we-wrote";
    return isReal || message.expiresAt != null ? [{ version: message.version, at: message.expiresAt ?? null }] : [];
  });
  const decided = entries.flatMap(({ version, effect }) => {
    if (effect.kind === "expiry-set") return [{ version, at: effect.at }];
    return effect.kind === "lapsed" ? [{ version, at: null }] : [];
  });
  return [...said, ...decided].toSorted((a, b) => a.version - b.version).at(-1)?.at ?? null;
}
