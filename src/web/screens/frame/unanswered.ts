/** What is said of a message whose sending was never answered. */
export const UNANSWERED = {
  ok: false,
  problems: {},
  unreachable: true,
  problem: "frame.noAnswerFromTheServer",
} as const;
