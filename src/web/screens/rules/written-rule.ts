import type { Rule } from "../../../core/rules/rule";

/** A rule as its form begins with it and posts it: records stand by their codes, contacts by an address. */
export type WrittenRule = Omit<Rule, "id"> & { readonly id: string | null };
