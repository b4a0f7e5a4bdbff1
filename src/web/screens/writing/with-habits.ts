import type { Draft } from "../../../core/writing/draft";
import type { UsedTemplateView } from "../../server/templates/template-view.server";

type Habits = Pick<UsedTemplateView, "id" | "subject" | "day" | "promise" | "categoryIds">;

/**
 * What a template changes of a draft beside its text. An answer keeps the subject of what it answers; a first message keeps
 * the code of the record that it is filed on.
 */
export function withHabits(draft: Draft, used: Habits, isFirst: boolean): Partial<Draft> {
  const { subject, day, promise, categoryIds } = used;
  const token = draft.files === undefined ? "" : `[${draft.files.code}]`;
  const takesSubject = subject !== "" && (isFirst || draft.subject.trim() === "");
  const named = subject.includes(token) ? subject : `${subject} ${token}`;
  return {
    template: used.id,
    ...(takesSubject ? { subject: named } : {}),
    ...(day === null ? {} : { after: "expect", day }),
    ...(promise === null ? {} : { promises: [...(draft.promises ?? []), promise] }),
    ...(categoryIds.length === 0 ? {} : { categories: [...new Set([...(draft.categories ?? []), ...categoryIds])] }),
  };
}
