/** What is said of a message whose sending was never answered. */
export const UNANSWERED = {
  ok: false,
  problems: {},
  unreachable: true,
  problem:
    "No answer from the server, so it may have been sent or not. Your text is kept: send it again, it goes once.",
} as const;
