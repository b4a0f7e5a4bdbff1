import type { AskedFields } from "../../../core/records/filing-field";
import type { LetterPlanned } from "../later-letters/use-planned";

/** Why a message of ours did not go: what is wrong by field and as a whole. */
export type LetterRefused<Problems = Readonly<Record<string, string>>> = {
  readonly ok: false;
  readonly problems: Problems;
  readonly problem: string | null;
  /** True where nobody knows whether it was sent. */
  readonly unreachable?: boolean;
  /** What the record that it is filed on asks for first. */
  readonly asked?: AskedFields;
};

/** What the server said to a message that begins a conversation: sent off, or what is wrong. */
export type WriteOutcome =
  | { readonly ok: true; readonly messageId: string; readonly conversationId: string; readonly holdMs: number }
  | LetterPlanned
  | LetterRefused;
