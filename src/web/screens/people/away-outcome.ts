import type { AwayProblems } from "../../server/people/away-form.server";

/** What the server said to a step: done, what is wrong by field, or as a whole. */
export type AwayOutcome =
  | { readonly ok: true; readonly did: "week" | "plan" | "end" }
  | { readonly ok: false; readonly problems: AwayProblems; readonly problem: string | null };
