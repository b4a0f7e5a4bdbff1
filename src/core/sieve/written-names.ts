import type { RuleNames } from "../rules/condition-in-words";

/** Names for rules that have what people call things in place of ids. */
export const WRITTEN_NAMES: RuleNames = {
  member: (id) => id,
  category: (id) => id,
  record: (id) => id,
  contact: (id) => id,
  round: (id) => id,
  group: (id) => id,
  template: (id) => id,
};
