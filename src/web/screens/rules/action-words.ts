import type { RuleAction, RuleActionKind, RuleActionOf } from "../../../core/rules/rule";
import type { rulesTexts } from "../../../texts/en/rules";
import type { PlainKey } from "../../../texts/say";

/** What a kind of action does, where it is chosen. */
export const ACTION_WORDS: Readonly<Record<RuleActionKind, PlainKey<typeof rulesTexts>>> = {
  categorise: "rules.doCategorise",
  file: "rules.doFile",
  assign: "rules.doAssign",
  urgency: "rules.doUrgency",
  settle: "rules.doSettle",
  bin: "rules.doBin",
  junk: "rules.doJunk",
  rest: "rules.doRest",
  hold: "rules.doHold",
  "follow-up": "rules.doFollowUp",
  expect: "rules.doExpect",
  expire: "rules.doExpire",
  note: "rules.doNote",
  follow: "rules.doFollow",
  "assign-in-turn": "rules.doAssignInTurn",
  "assign-as-before": "rules.doAssignAsBefore",
  tell: "rules.doTell",
  answer: "rules.doAnswer",
  forward: "rules.doForward",
  redirect: "rules.doRedirect",
};

/** What the fields of an action of a kind are given. */
export type FieldsProps<Kind extends RuleActionKind> = Kind extends RuleActionKind
  ? { readonly action: RuleActionOf<Kind>; readonly onChange: (action: RuleAction) => void }
  : never;
