/** What the server said to a message that begins a conversation: sent off, or what is wrong by field and as a whole. */
export type WriteOutcome =
  | { readonly ok: true; readonly messageId: string; readonly conversationId: string; readonly holdMs: number }
  | {
      readonly ok: false;
      readonly problems: Readonly<Record<string, string>>;
      readonly problem: string | null;
      /** True where nobody knows whether it was sent. */
      readonly unreachable?: boolean;
    };
