import type { MembersProblems } from "../../server/people/members-form.server";

/** What the server said to a step: done, in words, with a link where one was made; or what is wrong by field. */
export type MembersOutcome =
  | { readonly ok: true; readonly said: string; readonly link: string | null }
  | { readonly ok: false; readonly problems: MembersProblems; readonly problem: string | null };
