import type { RuleAction, RuleActionKind, RuleActionOf } from "../../../core/rules/rule";
import type { actionsTexts } from "../../../texts/en/actions";
import type { PlainKey } from "../../../texts/say";

/** What a kind of action does, where it is chosen. */
export const ACTION_WORDS: Readonly<Record<RuleActionKind, PlainKey<typeof actionsTexts>>> = {
  categorise: "actions.doCategorise",
  file: "actions.doFile",
  assign: "actions.doAssign",
  urgency: "actions.doUrgency",
  settle: "actions.doSettle",
  bin: "actions.doBin",
  junk: "actions.doJunk",
  rest: "actions.doRest",
  hold: "actions.doHold",
  "follow-up": "actions.doFollowUp",
  expect: "actions.doExpect",
  expire: "actions.doExpire",
  note: "actions.doNote",
  follow: "actions.doFollow",
  "assign-in-turn": "actions.doAssignInTurn",
  "assign-as-before": "actions.doAssignAsBefore",
  tell: "actions.doTell",
  remind: "actions.doRemind",
  "ask-report": "actions.doAskReport",
  answer: "actions.doAnswer",
  "answer-with": "actions.doAnswerWith",
  forward: "actions.doForward",
  redirect: "actions.doRedirect",
};

/** What the fields of an action of a kind are given; `isOwn` where it is for nobody but whoever edits it. */
export type FieldsProps<Kind extends RuleActionKind> = Kind extends RuleActionKind
  ? {
      readonly action: RuleActionOf<Kind>;
      readonly isOwn: boolean;
      readonly onChange: (action: RuleAction) => void;
    }
  : never;
