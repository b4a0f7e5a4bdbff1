import type { Rule, RuleMoment } from "../../../core/rules/rule";
import type { WrittenSpan } from "../forms/span-fields";

/** A rule as its form begins with it and posts it: records stand by their codes, contacts by an address, times by a clock. */
export type WrittenRule = Omit<Rule, "id" | "times" | "version" | "memberId" | "isEverywhere"> & {
  readonly id: string | null;
  /** The member's own, and nobody else's. */
  readonly isOwn: boolean;
  readonly isEverywhere: boolean;
  readonly times: WrittenSpan & { readonly moment: RuleMoment };
};
