import { type AutomaticAnswerId, type MemberId, type TemplateId, trustedId } from "../kernel/ids";
import type { Instant } from "../kernel/instant";
import { type Condition, EVERY_MESSAGE } from "../rules/condition";
import type { Rule } from "../rules/rule";

/** When an automatic answer goes at all, within its dates. */
export type AnswerTrigger =
  | { readonly kind: "always" }
  /** Outside the working hours of the tray. */
  | { readonly kind: "closed" }
  /** To what is a colleague's, while they are away. */
  | { readonly kind: "away"; readonly memberId: MemberId };

/** What is answered to messages of one kind. */
export type AnswerText = {
  readonly condition: Condition;
  /** With blanks such as `[back]`. */
  readonly text: string;
  /** What is written instead of the text; absent for that. */
  readonly templateId?: TemplateId;
  /** Whether whoever covers for the colleague who is away gets a copy. */
  readonly copiesCover: boolean;
};

/** How often the same person is answered. */
export type AnswerPace = { readonly kind: "once"; readonly days: number } | { readonly kind: "each" };

/** What a tray answers by itself. */
export type AutomaticAnswer = {
  readonly id: AutomaticAnswerId;
  readonly name: string;
  readonly isOn: boolean;
  /** Null for from now on, and for until it is switched off. */
  readonly from: Instant | null;
  readonly until: Instant | null;
  readonly trigger: AnswerTrigger;
  /** The first whose condition holds is sent. */
  readonly texts: readonly AnswerText[];
  readonly pace: AnswerPace;
};

/** Whether an automatic answer is in force at a moment. */
export function isInForce(
  { isOn, from, until }: Pick<AutomaticAnswer, "isOn" | "from" | "until">,
  now: Instant,
): boolean {
  return isOn && (from === null || from <= now) && (until === null || now < until);
}

/** The member whose absence it is about; null for none. */
export function absentMember({ trigger }: Pick<AutomaticAnswer, "trigger">): MemberId | null {
  return trigger.kind === "away" ? trigger.memberId : null;
}

/** A rule that names what an automatic answer names: what is asked about names is asked of it. */
export function asRule(
  answer: Pick<AutomaticAnswer, "trigger" | "texts">,
): Pick<Rule, "condition" | "exception" | "actions"> {
  const member = absentMember(answer);
  return {
    condition: { kind: "any", of: answer.texts.map(({ condition }) => condition) },
    exception: null,
    actions: member === null ? [] : [{ kind: "follow", memberId: member }],
  };
}

/** What a rule answers by itself, to the messages that it is for. */
export function answersOfRule({ id, name, actions }: Pick<Rule, "id" | "name" | "actions">): AutomaticAnswer[] {
  return actions.flatMap((action): AutomaticAnswer[] => {
    if (action.kind !== "answer" && action.kind !== "answer-with") return [];
    const { days } = action;
    const said = action.kind === "answer" ? { text: action.text } : { text: "", templateId: action.templateId };
    return [
      {
        ...{ id: trustedId<AutomaticAnswerId>(id), name, isOn: true, from: null, until: null },
        trigger: { kind: "always" },
        texts: [{ condition: EVERY_MESSAGE, ...said, copiesCover: false }],
        pace: days === null ? { kind: "each" } : { kind: "once", days },
      },
    ];
  });
}
