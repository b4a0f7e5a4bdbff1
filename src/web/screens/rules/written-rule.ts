import type { Rule, RuleMoment } from "../../../core/rules/rule";
import type { WrittenSpan } from "../forms/span-fields";

/** A rule as its form begins with it and posts it: records stand by their codes, contacts by an address, times by a clock. */
export type WrittenRule = Omit<Rule, "id" | "times" | "version"> & {
  readonly id: string | null;
  readonly times: WrittenSpan & { readonly moment: RuleMoment };
};
