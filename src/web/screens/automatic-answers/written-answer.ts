import type { AnswerPace, AnswerText, AnswerTrigger } from "../../../core/automatic-answers/automatic-answer";

/** An automatic answer as its form begins with it and posts it: its dates as the clock of whoever writes shows them, records by their codes. */
export type WrittenAnswer = {
  readonly id: string | null;
  readonly name: string;
  readonly isOn: boolean;
  /** As `2026-12-24T16:00`; empty for none. */
  readonly from: string;
  readonly until: string;
  readonly trigger: AnswerTrigger;
  readonly texts: readonly AnswerText[];
  readonly pace: AnswerPace;
};
