import type { CategoryProblems } from "../../../core/categories/check-category";
import type { CategoryUses } from "../../../operations/index.server";

/** What became of a change of categories. */
export type CategoryOutcome =
  | {
      readonly ok: true;
      /** What was done, as its notice says it. */
      readonly said: string;
      /** The step to take it back by; null when there is nothing to take back. */
      readonly stepId: string | null;
      /** The category that was created, if one was. */
      readonly created: string | null;
    }
  | {
      readonly ok: false;
      /** What is wrong beside the fields. */
      readonly problems: { readonly [Field in keyof CategoryProblems]?: string };
      /** What is wrong with the whole; null when the fields say it. */
      readonly problem: string | null;
      /** What uses the category now, where that changed under the question. */
      readonly uses: CategoryUses | null;
    };
